import { useReviewContext } from "../review/ReviewContext";
import type { Check } from "../shared/api/client";
import { Mark, shapeOf } from "../shared/Mark";
import { counted, percent } from "../shared/numbers";
import { SymbolText } from "../shared/Symbol";
import { deviates, rowsOf, worstFirst } from "../sheet/layout";

const SHOWN = 14;

/** What the bench shows while nothing is chosen: what deviates in a stage, worst first. */
export function OutOfPlumb({ stage }: { stage: string }) {
  const { recheck, select } = useReviewContext();
  const rows = worstFirst(
    rowsOf({ checks: recheck?.checks ?? [] }).filter((r) => r.stage === stage && r.all.some(deviates)),
  );
  const held = (recheck?.checks ?? []).filter((c) => c.stage === stage && c.verdict !== "gap");
  if (rows.length === 0) {
    return (
      <div className="empty">
        <h2 className="stage-title">{held.length > 0 ? "In plumb" : "Nothing to hold up yet"}</h2>
        <p className="quiet">
          {held.length > 0
            ? `${counted(held.length, "value")} of this stage hang within their tolerance.`
            : "The submission states nothing of this stage. Hand its tables in under Exhibits."}
        </p>
      </div>
    );
  }
  return (
    <div className="out-of-plumb">
      <h2 className="stage-title">Out of plumb in this stage</h2>
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
              <td className="n off">{off(r.check)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length > SHOWN && <p className="quiet">and {rows.length - SHOWN} more on the sheet</p>}
      <p className="quiet">
        Worst first. <span className="key">n</span> goes to the next one, <span className="key">?</span> lists the keys.
      </p>
    </div>
  );
}

function off(check: Check): string {
  const deviation = check.shown ? check[check.shown]?.deviation : null;
  return deviation === null || deviation === undefined ? "" : percent(deviation);
}
