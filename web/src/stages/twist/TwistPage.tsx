import { Select } from "@mantine/core";
import { useState } from "react";
import { Bench } from "../../bench/Bench";
import { theirsOf, type Track } from "../../heightlog/data";
import { HeightLog } from "../../heightlog/HeightLog";
import { ReferenceResponse } from "../../review/ReferenceResponse";
import { useReviewContext } from "../../review/ReviewContext";
import type { Recheck } from "../../shared/api/client";
import { ChecksTable } from "../../shared/ChecksTable";
import { Mark } from "../../shared/Mark";
import { EmptyStage } from "../../shared/EmptyStage";
import { figures, trimmed } from "../../shared/numbers";
import { SymbolText } from "../../shared/Symbol";
import { Matrix } from "./Matrix";
import { greatest, worstOf, type CaseMoved, type TwistStage } from "./caseGrid";
import { PlanTorsion } from "./PlanTorsion";
import "./twist.css";
import { strings } from "./strings";

const STATUS = { shown: "dot", missing: "gap", differs: "origin", open: "open" } as const;

/** Which story turns, in which case, and what follows from it. */
export default function TwistPage() {
  const { recheck, selected, select, assumedBrief } = useReviewContext();
  const [wanted, setWanted] = useState("");
  const [pointed, setPointed] = useState<number | null>(null);
  if (!recheck) return null;
  const stage = recheck.stages.twist;
  const checks = recheck.checks.filter((c) => c.stage === "twist" && (c.story === null || c.role !== null));
  const head = (
    <div className="stage-head">
      <h2 className="stage-title">{strings.twist}</h2>
      <span className="quiet">{strings.torsionOfEachStoryIn}</span>
    </div>
  );
  const chosen = stage?.cases.find((c) => c.case === wanted) ?? worstOf(stage?.cases ?? []);
  if (!stage || !chosen)
    return (
      <div className="split wide">
        <main className="stage">
          {head}
          <EmptyStage what={strings.noCaseStatesTheDisplacements} needed={strings.storyDriftsAndDisplacementsBy} />
          <ChecksTable caption={strings.checksOfTheTwist} checks={checks} selected={selected?.id} onSelect={select} />
        </main>
        <Bench stage="twist" />
      </div>
    );
  const choose = (name: string) => {
    setWanted(name);
    setPointed(null);
  };
  const story = pointed ?? greatest(chosen)?.story ?? 0;
  const name = recheck.stories[story] ?? "";
  return (
    <div className="split wide">
      <main className="stage">
        {head}
        <ReferenceResponse kinds={["static_response"]} answered={chosen.ratio_own !== null} />
        <div className="twist-cases">
          <div>
            <h3 className="part">
              {strings.requiredCasesHead}
              <span className="quiet">
                {strings.greatestRatioOfEachDirection}
                {stage.eccentricity === null ? "" : strings.ofThePlanDimension(trimmed(100 * stage.eccentricity))}
              </span>
            </h3>
            <Matrix cases={stage.cases} chosen={chosen.case} asked={stage.eccentricity !== null} onChoose={choose} />
            {stage.cases.length > 4 && (
              <Select
                aria-label={strings.selectedCase}
                label={strings.selectedCaseLabel}
                w={280}
                searchable
                allowDeselect={false}
                value={chosen.case}
                data={[...new Set(stage.cases.map((c) => c.case))]}
                onChange={(v) => {
                  choose(v ?? "");
                }}
              />
            )}
          </div>
          <PlanTorsion
            moved={chosen}
            story={story}
            name={name}
            plan={assumedBrief.stories?.find((s) => s.name === name)?.plan as [number, number] | undefined}
          />
        </div>
        <HeightLog
          key={chosen.case}
          recheck={recheck}
          brief={assumedBrief}
          tracks={tracks(recheck, stage, chosen)}
          onSelect={select}
          onStory={setPointed}
          height={310}
        />
        {stage.follows.length > 0 && (
          <>
            <h3 className="part">{strings.consequences}</h3>
            <table className="plain">
              <tbody>
                {stage.follows.map((f) => (
                  <tr key={f.words}>
                    <td>
                      <Mark shape={STATUS[f.status]} /> <SymbolText text={f.words} />
                    </td>
                    <td className={f.status === "differs" || f.status === "missing" ? "off" : "quiet"}>{f.why}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </>
        )}
        {stage.irregular === false && <p className="quiet">{strings.noStoryIsTorsionallyIrregular(stage.clause)}</p>}
        <ChecksTable caption={strings.checksOfTheTwist} checks={checks} selected={selected?.id} onSelect={select} />
      </main>
      <Bench stage="twist" />
    </div>
  );
}

/** The ratio of the chosen case against the thresholds, A_x of its direction, and the ends. */
function tracks(recheck: Recheck, stage: TwistStage, chosen: CaseMoved): Track[] {
  const nothing = recheck.stories.map(() => null);
  const A_x = recheck.checks.filter(
    (c) => c.quantity === "A_x" && c.direction === chosen.direction && c.story !== null,
  );
  const ours = stage.A_x_ours[chosen.direction];
  const far = chosen.displacement.length ? chosen.displacement : chosen.drift;
  const what = chosen.displacement.length ? "ends" : strings.driftOfTheEnds;
  const mm = (end: number) =>
    recheck.stories.map((_, i) => (far[end]?.[i] == null ? null : 1000 * Math.abs(far[end][i])));
  return [
    {
      title: strings.driftRatio,
      unit: "–",
      shape: "bars",
      theirs: chosen.ratio_own ? chosen.ratio : nothing,
      texts: chosen.ratio.map((r) => (r === null || !chosen.ratio_own ? "–" : figures(r, 3))),
      // without a reference model the ratio is ours, made of their ends
      ours: chosen.ratio_own ?? chosen.ratio,
      out: recheck.stories.map(() => false),
      checks: recheck.stories.map(() =>
        recheck.checks.find((c) => c.id === `twist_torsion_stated.${chosen.direction}`),
      ),
      adds: false,
      faint: chosen.tiny,
      from: 1,
      limits: stage.thresholds.map((t) => ({
        words: `${figures(t.value, 3)} ${t.words}`,
        values: recheck.stories.map(() => t.value),
      })),
    },
    ...(ours || A_x.length
      ? [
          {
            title: "A_x",
            unit: "–",
            shape: "bars" as const,
            ...theirsOf(recheck, A_x),
            ours: ours ?? nothing,
            adds: false,
          },
        ]
      : []),
    ...(far.length
      ? [
          {
            title: what,
            unit: "mm",
            shape: "line" as const,
            theirs: mm(0),
            also: mm(1),
            texts: mm(0).map((v, i) => `${v === null ? "–" : figures(v, 3)} / ${figures(mm(1)[i] ?? NaN, 3)}`),
            ours: nothing,
            out: recheck.stories.map(() => false),
            checks: recheck.stories.map(() => undefined),
            adds: false,
          },
        ]
      : []),
  ];
}
