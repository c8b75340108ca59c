import { cross } from "../../shared/outline";
import { Button } from "@mantine/core";
import { Link } from "react-router";
import { useState } from "react";
import { Bench } from "../../bench/Bench";
import { HeightLog } from "../../heightlog/HeightLog";
import type { InspectAnswer, ModelFloor } from "../../model/answers";
import { RunStatus } from "../../model/RunStatus";
import { useModel, useRun } from "../../model/useModel";
import { useReviewContext } from "../../review/ReviewContext";
import type { Story } from "../../shared/api/client";
import { useAcross, useEditions } from "../../shared/api/queries";
import { ChecksTable } from "../../shared/ChecksTable";
import { figures, trimmed } from "../../shared/numbers";
import { weightTracks } from "./weights";
import "./weight.css";
import { strings } from "./strings";
import css from "./WeightPage.module.css";

/** Is the mass right? Static weight against the mass of both analyses, story by story. */
export default function WeightPage() {
  const { review, recheck, selected, select, assumedBrief } = useReviewContext();
  const across = useAcross(review.id);
  const editions = useEditions();
  const model = useModel(review.id);
  const inspected = useRun<InspectAnswer>(review.id, "model", model.number, review.brief_number, model.number > 0);
  const [story, setStory] = useState<number | null>(null);
  if (!recheck) return null;
  const stories = assumedBrief.stories ?? [];
  const floors = inspected.answer?.floors ?? [];
  const checks = recheck.checks.filter((c) => c.stage === "weight" || c.quantity === "w" || c.quantity === "W");
  const known = [assumedBrief.edition, ...(assumedBrief.comparison_editions ?? [])].flatMap((id) => {
    const e = editions.data?.find((x) => x.id === id);
    return e ? [e] : [];
  });
  // the story under the pointer, else that of the check on the bench, else the top
  const at = story === null ? (selected?.story ?? recheck.stories.at(-1)) : recheck.stories[story];
  const sources = inspected.answer?.mass ?? [];
  return (
    <div className="split wide">
      <main className="stage">
        <div className="stage-head">
          <h2 className="stage-title">{strings.weight}</h2>
          <span className="quiet">{strings.staticWeightComparedWithMass}</span>
        </div>
        {recheck.stories.length === 0 ? (
          <div className="empty">
            <p>{strings.noStoriesAreKnownYet}</p>
            <Button component={Link} to="../brief">
              {strings.enterThemInTheBrief}
            </Button>
          </div>
        ) : (
          <>
            {model.number === 0 && !model.loading && (
              <p className="quiet">
                {strings.aReferenceModelWouldBe}
                <Link to="../frame">{strings.createOne}</Link>.
              </p>
            )}
            {model.number > 0 && <RunStatus {...inspected} />}
            <div className="weight-top">
              <HeightLog
                recheck={recheck}
                brief={assumedBrief}
                tracks={weightTracks(recheck, floors)}
                onSelect={select}
                onStory={setStory}
              />
              <CentrePlan floor={floors.find((f) => f.name === at)} waiting={inspected.asking || inspected.open} />
            </div>
            <MakeUp
              stories={stories}
              editions={known.map((e) => ({ id: e.id, title: e.short }))}
              weights={across.data?.weights}
            />
            {sources.length > 0 && <Sources rows={sources} />}
          </>
        )}
        <ChecksTable
          caption={strings.checksOfWeightAndMass}
          checks={checks}
          selected={selected?.id}
          onSelect={select}
        />
      </main>
      <Bench stage="weight" />
    </div>
  );
}

const PLAN = 250;

/** The floor of a story in plan with its centre of mass. */
function CentrePlan({ floor, waiting }: { floor: ModelFloor | undefined; waiting: boolean }) {
  if (!floor)
    return (
      <div className={`weight-plan quiet ${css["smallLine"] ?? ""}`}>
        {waiting ? strings.readingTheReferenceModel : strings.theCentreOfMassIs}
      </div>
    );
  const xs = floor.corners.map((c) => c[0]),
    ys = floor.corners.map((c) => c[1]);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const unit = (PLAN - 50) / Math.max(x1 - x0, y1 - y0, 1);
  const px = (x: number) => PLAN / 2 + (x - (x0 + x1) / 2) * unit,
    py = (y: number) => PLAN / 2 - (y - (y0 + y1) / 2) * unit;
  const [cx, cy] = floor.centre;
  const off = Math.hypot(cx - (x0 + x1) / 2, cy - (y0 + y1) / 2);
  const place = off < 0.005 ? strings.inTheMiddleOfThe : strings.mFromTheMiddle(off.toFixed(2));
  return (
    <div className="weight-plan">
      <svg width={PLAN} height={PLAN} role="img" aria-label={strings.planOfWithItsCentre(floor.name)}>
        <polygon
          points={floor.corners.map((c) => `${String(px(c[0]))},${String(py(c[1]))}`).join(" ")}
          fill="none"
          stroke="var(--ink)"
        />
        <path d={cross(px((x0 + x1) / 2), py((y0 + y1) / 2), 5)} stroke="var(--quiet)" />
        <circle cx={px(cx)} cy={py(cy)} r={6} fill="var(--ours)" />
        <text x={10} y={18} fontSize={12.5} fontWeight={620} fill="var(--ink)">
          {floor.name}
        </text>
      </svg>
      <p className={`quiet ${css["smallLine2"] ?? ""}`}>
        {strings.centreOfMass}
        <b className="ours">
          {cx.toFixed(2)}, {cy.toFixed(2)} m
        </b>
        , {place}; {figures(floor.mass)} t, {figures(floor.inertia)} t m²
      </p>
    </div>
  );
}

type Weights = NonNullable<ReturnType<typeof useAcross>["data"]>["weights"];

/** What the weights are made of: loads by story and the share each edition counts. */
function MakeUp({
  stories,
  editions,
  weights,
}: {
  stories: Story[];
  editions: { id: string; title: string }[];
  weights: Weights | undefined;
}) {
  const made = stories
    .map((s, i) => ({ s, i }))
    .filter(({ s }) => s.loads?.length && !s.weight)
    .reverse();
  if (made.length === 0)
    return (
      <p className={`quiet ${css["small"] ?? ""}`}>
        {strings.theBriefGivesWeightsAs}
        <Link to="../brief">{strings.enterTheLoadsBehindThem}</Link>
        {strings.andEachEditionsShareOf}
      </p>
    );
  return (
    <section aria-label={strings.weightMakeUp}>
      <h3 className="part">{strings.weightMakeUp}</h3>
      <table className="plain">
        <thead>
          <tr>
            <th>{strings.story}</th>
            <th>{strings.load}</th>
            <th>{strings.kind}</th>
            <th className="n">{strings.amountKn}</th>
            {editions.map((e) => (
              <th key={e.id} className="n">
                {e.title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {made.map(({ s, i }) =>
            (s.loads ?? []).map((load, k) => (
              <tr key={`${s.name} ${String(k)}`}>
                <td>{k === 0 ? s.name : ""}</td>
                <td>{load.name}</td>
                <td>{load.kind}</td>
                <td className={`n${load.amount < 0 ? " off" : ""}`}>{figures(load.amount)}</td>
                {editions.map((e) => {
                  const c = weights?.[e.id]?.loads?.[i]?.[k];
                  return (
                    <td key={e.id} className="n" title={c?.why}>
                      {c ? (
                        <>
                          {figures(c.counted)} {c.share !== null && <span className="quiet">× {trimmed(c.share)}</span>}
                        </>
                      ) : (
                        strings.missingInput
                      )}
                    </td>
                  );
                })}
              </tr>
            )),
          )}
        </tbody>
      </table>
    </section>
  );
}

const SOURCES = [
  ["stories", strings.storyWeights],
  ["floors", "floors"],
  ["members", "members"],
  ["lines", strings.onMembers],
  ["point", strings.atNodes],
  ["equipment", "equipment"],
] as const;

/** Sources of the mass of the reference model, each in a separate column, so that none counts twice. */
function Sources({ rows }: { rows: InspectAnswer["mass"] }) {
  const used = SOURCES.filter(([key]) => rows.some((r) => typeof r[key] === "number" && r[key] !== 0));
  return (
    <section aria-label={strings.sourcesOfMassInThe}>
      <h3 className="part">{strings.sourcesOfMassInTons}</h3>
      <table className="plain">
        <thead>
          <tr>
            <th>{strings.floor}</th>
            {used.map(([key, title]) => (
              <th key={key} className="n">
                {title}
              </th>
            ))}
            <th className="n">{strings.sum}</th>
          </tr>
        </thead>
        <tbody>
          {[...rows].reverse().map((r) => (
            <tr key={r["floor"]}>
              <td>{r["floor"]}</td>
              {used.map(([key]) => (
                <td key={key} className="n">
                  {figures(r[key] ?? 0)}
                </td>
              ))}
              <td className="n ours">{figures(r["total"])}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
