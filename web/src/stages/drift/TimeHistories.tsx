import { Button, FileButton, Select } from "@mantine/core";
import { useElementSize } from "@mantine/hooks";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import { RunStatus } from "../../model/RunStatus";
import { useModel, useRun } from "../../model/useModel";
import { useReviewContext } from "../../review/ReviewContext";
import { answered, api, type LoadCase, type Schemas } from "../../shared/api/client";
import { Mark, shapeOf, verdictWords } from "../../shared/Mark";
import { figures, percent } from "../../shared/numbers";
import { Problems } from "../../shared/Problems";
import { ValueInput } from "../../shared/ValueInput";
import { columns, driftOf, peakOf } from "./trace";
import { strings } from "./strings";

type History = Schemas["TimeHistoryAnswer"];
type Record = Schemas["GroundRecord"];
const UNITS = ["g", "m/s2", "cm/s2", "mm/s2"];

/** Time histories of theirs against the reference model under the same record, and one story over time. */
export function TimeHistories() {
  const { review, submission, recheck } = useReviewContext();
  const model = useModel(review.id);
  const caseData =
    review.submissions.find((s) => s.number === submission) ??
    review.submissions.find((s) => s.label === recheck?.submission);
  const cases = (caseData?.cases ?? []).filter((c) => c.kind === "time_history");
  const [chosen, setChosen] = useState("");
  if (cases.length === 0) return null;
  const records = model.model.records ?? [];
  const of = (name: string) => records.find((r) => r.case === name);
  const shown = cases.find((c) => c.name === chosen) ?? cases.find((c) => of(c.name)) ?? cases[0];
  return (
    <section aria-label={strings.timeHistories}>
      <h3 className="part">
        {strings.timeHistories2}
        <span className="quiet">{strings.submittedEnvelopesAndOurReference}</span>
      </h3>
      {model.number === 0 && (
        <p className="quiet">
          {strings.thereIsNoReferenceModel}
          <Link to="../frame">{strings.createOne}</Link>.
        </p>
      )}
      <Problems error={model.error} title={strings.theRecordWasNotSaved} />
      <table className="plain histories">
        <thead>
          <tr>
            <th scope="col">{strings.caseWord}</th>
            <th scope="col">{strings.along}</th>
            <th scope="col">{strings.record}</th>
            <th scope="col" className="n">
              {strings.values}
            </th>
            <th scope="col">{strings.factorOnIt}</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {cases.map((c) => {
            const record = of(c.name);
            return (
              <tr key={c.name} className={c === shown ? "on" : ""}>
                <td>
                  <button
                    type="button"
                    className="linklike"
                    onClick={() => {
                      setChosen(c.name);
                    }}
                  >
                    {c.name}
                  </button>
                </td>
                <td>{c.direction ?? strings.notStated}</td>
                <td>{record ? record.name : <span className="quiet">{strings.noneYet}</span>}</td>
                <td className="n">{record ? record.a.length : ""}</td>
                <td>
                  {record && (
                    <ValueInput
                      aria-label={strings.factorOnTheRecordOf(c.name)}
                      size="xs"
                      w={90}
                      value={record.factor ?? 1}
                      onCommit={(factor) => {
                        if (factor !== null && factor > 0)
                          model.change((m) => {
                            for (const r of m.records ?? []) if (r.case === c.name) r.factor = factor;
                          });
                      }}
                    />
                  )}
                </td>
                <td>
                  {record && (
                    <Button
                      variant="default"
                      size="compact-xs"
                      onClick={() => {
                        model.change((m) => {
                          m.records = (m.records ?? []).filter((r) => r.case !== c.name);
                        });
                      }}
                    >
                      {strings.removeTheRecord}
                    </Button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {shown && model.number > 0 && !of(shown.name) && (
        <ChooseRecord
          key={shown.name}
          loadCase={shown}
          onRead={(record) => {
            model.change((m) => {
              m.records = [...(m.records ?? []).filter((r) => r.case !== record.case), record];
            });
          }}
        />
      )}
      {shown && of(shown.name) && !model.busy && <SpotCheck key={shown.name} loadCase={shown} model={model.number} />}
    </section>
  );
}

/** The file of a record; what it does not say of itself is required. */
function ChooseRecord({ loadCase: loadCase, onRead }: { loadCase: LoadCase; onRead: (record: Record) => void }) {
  const { review } = useReviewContext();
  const [file, setFile] = useState<{ name: string; text: string } | null>(null);
  const [unit, setUnit] = useState("");
  const [dt, setDt] = useState<number | null>(null);
  const [along, setAlong] = useState<"X" | "Y">(loadCase.direction === "Y" ? "Y" : "X");
  const read = useMutation({
    mutationFn: (given: { name: string; text: string }) =>
      answered(
        api.POST("/api/reviews/{review_id}/model/record/", {
          params: { path: { review_id: review.id } },
          body: { text: given.text, unit, ...(dt === null ? {} : { dt }) },
        }),
      ),
    onSuccess: (found, given) => {
      onRead({ ...found, name: given.name.slice(0, 60), case: loadCase.name, direction: along });
    },
  });
  return (
    <div className="histories-choose">
      <FileButton
        onChange={(chosen) => {
          if (!chosen) return;
          void chosen.text().then((text) => {
            const given = { name: chosen.name, text };
            setFile(given);
            read.mutate(given);
          });
        }}
      >
        {(props) => (
          <Button variant="default" {...props}>
            {strings.selectTheRecordOf(loadCase.name)}
          </Button>
        )}
      </FileButton>
      <Select
        aria-label={strings.unitOfTheAccelerations}
        placeholder={strings.unitFromTheFile}
        w={170}
        clearable
        value={unit || null}
        data={UNITS}
        onChange={(v) => {
          setUnit(v ?? "");
        }}
      />
      <ValueInput
        aria-label={strings.timeStepOfTheRecord}
        placeholder={strings.stepFromTheFile}
        w={170}
        unit="s"
        value={dt}
        onCommit={setDt}
      />
      {loadCase.direction !== "X" && loadCase.direction !== "Y" && (
        <Select
          aria-label={strings.directionOfTheRecord}
          w={90}
          allowDeselect={false}
          value={along}
          data={["X", "Y"]}
          onChange={(v) => {
            setAlong(v === "Y" ? "Y" : "X");
          }}
        />
      )}
      {file && read.isError && (
        <Button
          variant="default"
          onClick={() => {
            read.mutate(file);
          }}
        >
          {strings.readAgain(file.name)}
        </Button>
      )}
      <Problems error={read.error} title={strings.theRecordCannotBeRead} />
    </div>
  );
}

/** One story over time on the reference model, their envelope as the edge it should just reach. */
function SpotCheck({ loadCase: loadCase, model }: { loadCase: LoadCase; model: number }) {
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
              <i className="theirs">{strings.mm(figures(edge))}</i>
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
              {strings.mm2}
            </text>
          </svg>
        )}
      </div>
    </div>
  );
}
