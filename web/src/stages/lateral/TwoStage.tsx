import type { Recheck } from "../../shared/api/client";
import { figures, trimmed } from "../../shared/numbers";

/** What a flexible upper part hands down to the podium under it, and whether the code permits the two stages. */
export function TwoStage({ recheck, direction }: { recheck: Recheck; direction: "X" | "Y" }) {
  const answer = recheck.two_stage[direction];
  if (!answer) return null;
  const state = (met: boolean | null) => (met === null ? "not tested" : met ? "met" : "not met");
  return (
    <section aria-label="Two-stage analysis">
      <h3 className="part">
        Two-stage analysis{" "}
        {answer.permitted === true ? (
          <span className="quiet">permitted</span>
        ) : (
          <span className="off">{answer.permitted === false ? "not permitted" : "open: a condition isn't tested"}</span>
        )}
      </h3>
      <ul className="notes">
        {answer.conditions.map((c) => (
          <li key={c.words}>
            {c.words}:{" "}
            <span className={c.met ? "" : "off"}>
              {c.value !== null && `${trimmed(c.value)}, `}
              {state(c.met)}
            </span>
          </li>
        ))}
      </ul>
      <table className="plain" style={{ width: "auto" }}>
        <thead>
          <tr>
            <th>base shear of the upper part</th>
            <th className="n">factor (R/ρ)</th>
            <th className="n">handed down</th>
            <th className="n">of the lower part itself</th>
            <th className="n">at the base</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            {[answer.V_upper, answer.factor, answer.handed_down, answer.V_lower, answer.V_base].map((v, i) => (
              <td key={i} className="n ours">
                {i === 1 ? `× ${trimmed(v)}` : `${figures(v)} kN`}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </section>
  );
}
