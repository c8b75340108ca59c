import { Button } from "@mantine/core";
import { useState } from "react";
import { Link } from "react-router";
import { useModel } from "../../model/useModel";
import { useReviewContext } from "../../review/ReviewContext";
import { Problems } from "../../shared/Problems";
import { ValueInput } from "../../shared/ValueInput";
import { ChooseRecord } from "./ChooseRecord";
import { StoryHistory } from "./StoryHistory";
import { strings } from "./strings";

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
        {strings.timeHistoriesHead}
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
      {shown && of(shown.name) && !model.busy && (
        <StoryHistory key={shown.name} loadCase={shown} model={model.number} />
      )}
    </section>
  );
}
