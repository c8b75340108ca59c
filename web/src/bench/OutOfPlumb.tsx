import { useReviewContext } from "../review/ReviewContext";
import type { Check } from "../shared/api/client";
import { useBefore, type Before } from "../shared/before";
import "../shared/checks.css";
import { Mark, shapeOf } from "../shared/Mark";
import { counted, percent } from "../shared/numbers";
import { SymbolText } from "../shared/Symbol";
import { deviates, rowsOf, worstFirst } from "../sheet/layout";
import { strings } from "./strings";

const SHOWN = 14;

/** What the bench shows while nothing is chosen: what deviates in a stage, worst first. */
export function OutOfPlumb({ stage }: { stage: string }) {
  const { recheck, select } = useReviewContext();
  const before = useBefore();
  const rows = worstFirst(
    rowsOf({ checks: recheck?.checks ?? [] }).filter((r) => r.stage === stage && r.all.some(deviates)),
  );
  const compared = (recheck?.checks ?? []).filter((c) => c.stage === stage && c.verdict !== "gap");
  if (rows.length === 0) {
    return (
      <div className="empty">
        <h2 className="stage-title">{compared.length > 0 ? strings.inPlumb : strings.nothingToCompareYet}</h2>
        <p className="quiet">
          {compared.length > 0
            ? strings.ofThisStageAreWithin(counted(compared.length, "value"))
            : strings.theSubmissionHasNoValues}
        </p>
      </div>
    );
  }
  return (
    <div className="out-of-plumb">
      <h2 className="stage-title">{strings.outOfPlumbInThis}</h2>
      <table className="plain">
        <tbody>
          {rows.slice(0, SHOWN).map((r) => (
            <tr key={r.check.id}>
              <td>
                <Mark shape={shapeOf(r.check)} />{" "}
                <button
                  type="button"
                  className="linklike"
                  onClick={() => {
                    select(r.check.id);
                  }}
                >
                  <SymbolText text={r.label} />
                </button>
              </td>
              <td className="quiet">{r.check.meaning}</td>
              <td className="n off">
                {off(r.check)}
                {was(before, r.check) !== undefined && (
                  <small className="was">{strings.was(was(before, r.check) ?? "")}</small>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length > SHOWN && (
        <p className="quiet">
          {strings.and}
          {rows.length - SHOWN}
          {strings.moreOnTheSheet}
        </p>
      )}
      <p className="quiet">
        {strings.worstFirst}
        <span className="key">n</span>
        {strings.selectsTheNextOne}
        <span className="key">?</span>
        {strings.listsAllKeys}
      </p>
    </div>
  );
}

function off(check: Check): string {
  const deviation = check.shown ? check[check.shown]?.deviation : null;
  return deviation === null || deviation === undefined ? "" : percent(deviation);
}

/** The deviation as it was without what is assumed, where it is another one now. */
function was(before: Before, check: Check): string | undefined {
  const earlier = before.get(check.id);
  return earlier && off(earlier) !== off(check) ? off(earlier) : undefined;
}
