import { useReviewContext } from "../review/ReviewContext";
import type { Check } from "../shared/api/client";
import { SymbolText } from "../shared/Symbol";
import { closenessOf, codesOf, proposalsFor, wordsOf } from "./causes";
import "./causes.css";
import { strings } from "./strings";

/** On the bench: which slips, and sets of them, give the number of a check, each with what it explains and leaves. */
export function CausePart({ check }: { check: Check }) {
  const { causes, causesPending, appliedCause, applyCause, whatIf } = useReviewContext();
  // causes are of the deviations as they are, not of those under an assumption
  if (check.role === null || causesPending || !causes || whatIf) return null;
  const proposals = proposalsFor(causes, check.id);
  const most = Math.max(1, ...proposals.map((p) => p.cause.bits));
  return (
    <section aria-label={strings.cause}>
      <div className="bench-part">
        <h3>{strings.cause}</h3>
        {proposals.length > 0 && <span className="quiet">{strings.whichMistake}</span>}
      </div>
      {proposals.length === 0 && <p className="quiet bench-from">{strings.noneForThis}</p>}
      {proposals.map(({ name, cause }) => {
        const applied = name === appliedCause;
        return (
          <button
            key={name}
            type="button"
            className={"cause-proposal" + (applied ? " applied" : "")}
            aria-pressed={applied}
            onClick={() => {
              applyCause(applied ? null : name);
            }}
          >
            <span className="cause-what">
              <b>
                <SymbolText text={wordsOf(cause)} />
              </b>
              <span className="quiet">
                {strings.reproduces(cause.explains.length)}, {closenessOf(cause)}
                {cause.leaves.length > 0 && `; ${strings.leaves(cause.leaves.length)}`}
              </span>
            </span>
            <span className="cause-weight" title={strings.bits(cause.bits.toFixed(1))}>
              <span style={{ width: `${String((100 * cause.bits) / most)}%` }} />
            </span>
            <span className="quiet cause-code">{codesOf(cause)}</span>
            <span className="ours cause-apply">{applied ? strings.applied : strings.apply}</span>
          </button>
        );
      })}
    </section>
  );
}
