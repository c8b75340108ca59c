import { Select } from "@mantine/core";
import { useElementSize } from "@mantine/hooks";
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { RunStatus } from "../../model/RunStatus";
import { useRun } from "../../model/useModel";
import { useReviewContext } from "../../review/ReviewContext";
import { type LoadCase, type Schemas } from "../../shared/api/client";
import { Mark, shapeOf, verdictWords } from "../../shared/Mark";
import { figures, percent } from "../../shared/numbers";
import { columns, driftOf, peakOf } from "./trace";
import { strings } from "./strings";

type History = Schemas["TimeHistoryAnswer"];

/** One story over time on the reference model, their envelope as the edge it should just reach. */
export function StoryHistory({ loadCase, model }: { loadCase: LoadCase; model: number }) {
  const { review, recheck, select } = useReviewContext();
  const { ref, width } = useElementSize();
  const run = useRun<History>(review.id, `history ${loadCase.name}`, model, review.brief_number);
  const stories = recheck?.stories ?? [];
  const [story, setStory] = useState(Math.floor(stories.length / 2));
  const histories = run.answer?.histories;
  const along = loadCase.direction === "Y" ? "Y" : "X";
  const caseData = recheck?.stages.drift?.[along]?.cases.find((c) => c.case === loadCase.name);
  const client = useQueryClient();
  const waiting = run.answer !== undefined && caseData?.displacement_own === null;
  const id = run.run?.id;
  useEffect(() => {
    // what waited for the answer can be said now
    if (waiting) void client.invalidateQueries({ queryKey: ["recheck", review.id] });
  }, [waiting, id, client, review.id]);
  if (!recheck || !run.answer || !histories) return <RunStatus {...run} />;
  const ours = driftOf(histories.displacement, stories, story);
  const peak = peakOf(ours);
  const name = stories[story] ?? "";
  const beside = recheck.checks.filter((c) => c.kind === "own" && c.case === loadCase.name);
  const theirs = caseData?.stated[story] ?? null;
  const edge = theirs === null ? null : 1000 * theirs;
  const reach = Math.max(Math.abs(peak?.value ?? 0), edge ?? 0, 1e-9) * 1.12;
  const height = 170;
  const left = 52;
  const t = (index: number) => left + ((width - left - 8) * index) / Math.max(1, ours.length - 1);
  const y = (value: number) => height / 2 - (value / reach) * (height / 2 - 14);
  const end = histories.t.at(-1) ?? 0;
  return (
    <div>
      <p className="histories-said">
        <Select
          aria-label={strings.storyShownOverTime}
          w={120}
          allowDeselect={false}
          value={name}
          data={stories}
          onChange={(v) => {
            setStory(Math.max(0, stories.indexOf(v ?? "")));
          }}
        />
        <span>
          {strings.driftAtTheCentreOurs}
          <b className="ours">
            {strings.mmAtS(figures(Math.abs(peak?.value ?? 0)), figures(histories.t[peak?.index ?? 0] ?? 0, 3))}
          </b>
          {edge !== null && (
            <>
              {strings.theirs}
              <i className="theirs">{strings.inMm(figures(edge))}</i>
              {peak && Math.abs(peak.value) > 0 && ` (${percent(edge / Math.abs(peak.value) - 1)})`}
            </>
          )}
          <span className="quiet">
            {strings.greatestGroundAccelerationGBase(
              figures(run.answer.peak_ground, 3),
              figures(run.answer.base_shear[along]),
            )}
          </span>
        </span>
      </p>
      {beside.length > 0 && (
        <p className="histories-said">
          {beside.map((c) => (
            <span key={c.id}>
              <Mark shape={shapeOf(c)} />{" "}
              <button
                type="button"
                className="linklike"
                onClick={() => {
                  select(c.id);
                }}
              >
                {c.meaning.toLowerCase()}
                {c.story === null ? "" : `, ${c.story}`}
              </button>{" "}
              <span className="quiet">{verdictWords(c)}</span>
            </span>
          ))}
        </p>
      )}
      <div ref={ref}>
        {width > left && (
          <svg
            width={width}
            height={height}
            role="img"
            aria-label={strings.driftOfOverSReference(name, figures(end, 3))}
          >
            <rect x={left} y={4} width={width - left - 8} height={height - 22} fill="none" stroke="var(--line)" />
            <line x1={left} x2={width - 8} y1={y(0)} y2={y(0)} stroke="var(--quiet)" />
            {edge !== null &&
              [edge, -edge].map((v) => (
                <line
                  key={v}
                  x1={left}
                  x2={width - 8}
                  y1={y(v)}
                  y2={y(v)}
                  stroke="var(--theirs)"
                  strokeDasharray="5 4"
                  strokeWidth={1.4}
                />
              ))}
            <path
              d={columns(ours, width - left)
                .map(
                  ({ from, least, most }) =>
                    `${from ? "L" : "M"}${String(t(from))} ${String(y(most))}V${String(y(least))}`,
                )
                .join("")}
              fill="none"
              stroke="var(--ours)"
              strokeWidth={1}
            />
            {peak && <circle cx={t(peak.index)} cy={y(peak.value)} r={4} fill="var(--ours)" />}
            {[reach / 1.12, 0, -reach / 1.12].map((v) => (
              <text key={v} x={left - 6} y={y(v) + 4} textAnchor="end" className="log-level">
                {figures(v, 3)}
              </text>
            ))}
            <text x={left} y={height - 4} className="log-level">
              0 s
            </text>
            <text x={width - 8} y={height - 4} textAnchor="end" className="log-level">
              {figures(end, 3)} s
            </text>
            <text x={4} y={14} className="log-level">
              {strings.mm}
            </text>
          </svg>
        )}
      </div>
    </div>
  );
}
