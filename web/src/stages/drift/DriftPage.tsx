import { Select } from "@mantine/core";
import { useState } from "react";
import { Link } from "react-router";
import { Bench } from "../../bench/Bench";
import { theirsOf, type Track } from "../../heightlog/data";
import { HeightLog } from "../../heightlog/HeightLog";
import { ReferenceResponse } from "../../review/ReferenceResponse";
import { useReviewContext } from "../../review/ReviewContext";
import type { Recheck } from "../../shared/api/client";
import { ChecksTable } from "../../shared/ChecksTable";
import { figures } from "../../shared/numbers";
import { EmptyStage } from "../../shared/EmptyStage";
import { SymbolText } from "../../shared/Symbol";
import { BaseShear } from "./BaseShear";
import { Chain } from "./Chain";
import { LevelsTable } from "./LevelsTable";
import { TimeHistories } from "./TimeHistories";
import "./drift.css";
import { strings } from "./strings";

type Drifts = NonNullable<NonNullable<Recheck["stages"]["drift"]>["X"]>;
const ENVELOPE = strings.envelopeOfTheGoverningDrifts;

/** Does it drift too far, in which case, and how does the design drift arise? */
export default function DriftPage() {
  const { recheck, selected, select, assumedBrief } = useReviewContext();
  const [direction, setDirection] = useState<"X" | "Y">(selected?.direction === "Y" ? "Y" : "X");
  const [wanted, setWanted] = useState("");
  if (!recheck) return null;
  const stage = recheck.stages.drift;
  const drifts = stage?.[direction] ?? stage?.[direction === "X" ? "Y" : "X"];
  const shown = stage?.[direction] ? direction : direction === "X" ? "Y" : "X";
  const checks = recheck.checks.filter(
    (c) =>
      c.stage === "drift" && (c.direction === null || c.direction === shown) && (c.story === null || c.role !== null),
  );
  return (
    <div className="split wide">
      <main className="stage">
        <div className="stage-head">
          <h2 className="stage-title">{strings.drift}</h2>
          <span className="quiet">{strings.designStoryDriftAgainstIts}</span>
        </div>
        {drifts ? (
          <>
            <ReferenceResponse
              kinds={["static_response"]}
              answered={drifts.cases.some((c) => c.displacement_own !== null)}
            />
            <Chain drifts={drifts} />
            {drifts.base_shear && <BaseShear shear={drifts.base_shear} />}
            <div className="drift-case">
              <Select
                aria-label={strings.caseShown}
                w={260}
                allowDeselect={false}
                value={drifts.cases.some((c) => c.case === wanted) ? wanted : ENVELOPE}
                data={[ENVELOPE, ...drifts.cases.map((c) => c.case)]}
                onChange={(v) => {
                  setWanted(v ?? "");
                }}
              />
              <span className="quiet">
                {drifts.at_edges ? strings.greatestOfBothEnds : strings.meanOfBothEnds}; {governs(drifts)}
              </span>
            </div>
            {displacementWords(recheck, drifts, shown) && (
              <p className="quiet">{displacementWords(recheck, drifts, shown)}</p>
            )}
            <HeightLog
              key={shown + wanted}
              recheck={recheck}
              brief={assumedBrief}
              tracks={tracks(recheck, drifts, shown, wanted)}
              direction={shown}
              onDirection={setDirection}
              onSelect={select}
            />
            {drifts.levels.length > 0 && <LevelsTable levels={drifts.levels} stories={recheck.stories} />}
            {drifts.notes.length > 0 && (
              <ul className="notes">
                {drifts.notes.map((n) => (
                  <li key={n}>
                    <SymbolText text={n} />
                  </li>
                ))}
              </ul>
            )}
          </>
        ) : checks.some((c) => c.kind === "drift_open") ? (
          <p>
            {strings.driftsAreSubmittedButThe}
            <Link to="../brief">{strings.brief}</Link>.
          </p>
        ) : (
          <EmptyStage what={strings.noStoryDriftsAreStated} needed={strings.storyDriftsOrDisplacementsBy} />
        )}
        <TimeHistories />
        {(checks.length > 0 || !drifts) && (
          <ChecksTable
            caption={strings.checksOfTheDriftDirection(shown)}
            checks={checks}
            selected={selected?.id}
            onSelect={select}
          />
        )}
      </main>
      <Bench stage="drift" />
    </div>
  );
}

/** Why the submitted displacements and those of the reference model differ, where both are shown. */
export function displacementWords(recheck: Recheck, drifts: Drifts, direction: "X" | "Y"): string {
  const top = recheck.stories.length - 1;
  const ratios = drifts.cases.flatMap((c) => {
    const [theirs, ours] = [c.displacement[top], c.displacement_own?.[top]];
    return theirs && ours ? [theirs / ours] : [];
  });
  const worst = ratios.sort((a, b) => Math.abs(Math.log(b)) - Math.abs(Math.log(a)))[0];
  if (worst === undefined || Math.abs(worst - 1) < 0.05) return "";
  const shear = recheck.checks.find((c) => c.id === `V.${direction}`);
  const ours = shear?.independent?.value;
  const ratio = shear?.theirs && typeof ours === "number" ? Number(shear.theirs.value) / ours : null;
  return (
    strings.displacementsDiffer(figures(worst, 3)) + (ratio === null ? "" : strings.baseShearsDiffer(figures(ratio, 3)))
  );
}

/** Which cases govern, in words. */
function governs(drifts: Drifts): string {
  const names = [...new Set(drifts.governing)];
  return strings.governing(names.slice(0, 3).join(", ") + (names.length > 3 ? strings.andOthers : ""), names.length);
}

/** Displacement, design drift over the height against its edge, and the stability coefficient. */
function tracks(recheck: Recheck, drifts: Drifts, direction: "X" | "Y", wanted: string): Track[] {
  const nothing = recheck.stories.map(() => null);
  const selectedCase = drifts.cases.find((c) => c.case === wanted);
  const driftChecks = recheck.checks.filter((c) => c.kind === "drift" && c.direction === direction);
  const theta = recheck.checks.filter((c) => c.quantity === "theta" && c.direction === direction);
  const greatest = (of: (c: Drifts["cases"][number]) => (number | null)[] | null): (number | null)[] =>
    recheck.stories.map((_, i) => {
      const all = (selectedCase ? [selectedCase] : drifts.cases)
        .map((c) => of(c)?.[i] ?? null)
        .filter((v) => v !== null);
      return all.length ? Math.max(...all) : null;
    });
  const displacements = greatest((c) => c.displacement);
  const mine = greatest((c) => c.displacement_own);
  const percents = (values: (number | null)[]) => values.map((v) => (v === null ? null : 100 * v));
  return [
    ...(displacements.some((v) => v !== null)
      ? [
          {
            title: strings.displacement,
            unit: "mm",
            shape: "line" as const,
            theirs: displacements.map((v) => (v === null ? null : 1000 * v)),
            texts: displacements.map((v) => (v === null ? "–" : (1000 * v).toFixed(1))),
            ours: mine.map((v) => (v === null ? null : 1000 * v)),
            out: recheck.stories.map(() => false),
            checks: recheck.stories.map(() => undefined),
            adds: false,
          },
        ]
      : []),
    {
      title: strings.designDrift,
      unit: strings.ofH,
      shape: "bars",
      theirs: selectedCase ? nothing : percents(drifts.ratio_theirs ?? nothing),
      texts: recheck.stories.map((_, i) => {
        const value = selectedCase ? null : (drifts.ratio_theirs?.[i] ?? null);
        return value === null ? "–" : figures(100 * value);
      }),
      ours: percents(selectedCase ? selectedCase.ratio : drifts.ratio),
      out: recheck.stories.map((_, i) => {
        const [a, b] = [drifts.ratio_theirs?.[i], drifts.ratio[i]];
        return !selectedCase && a != null && b != null && Math.abs(a - b) > 0.01 * b;
      }),
      checks: recheck.stories.map((s) => driftChecks.find((c) => c.story === s)),
      adds: false,
      limits: [{ words: strings.limitOfTheStoryDrift, values: percents(drifts.limit) }],
    },
    ...(drifts.theta
      ? [
          {
            title: "θ",
            unit: "–",
            shape: "bars" as const,
            ...theirsOf(recheck, theta),
            ours: drifts.theta,
            adds: false,
            ...(drifts.theta_limit === null
              ? {}
              : {
                  limits: [
                    {
                      words: strings.greatestStabilityCoefficient,
                      values: recheck.stories.map(() => drifts.theta_limit),
                    },
                  ],
                }),
          },
        ]
      : []),
  ];
}
