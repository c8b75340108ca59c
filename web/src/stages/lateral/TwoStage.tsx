import type { Recheck } from "../../shared/api/client";
import { figures, trimmed } from "../../shared/numbers";
import { strings } from "./strings";
import css from "./TwoStage.module.css";

/** What a flexible upper part hands down to the podium under it, and whether the code permits the two stages. */
export function TwoStage({ recheck, direction }: { recheck: Recheck; direction: "X" | "Y" }) {
  const answer = recheck.two_stage[direction];
  if (!answer) return null;
  const state = (met: boolean | null) => (met === null ? strings.notTested : met ? "met" : strings.notMet);
  return (
    <section aria-label={strings.twoStageAnalysis}>
      <h3 className="part">
        {strings.twoStageHead}
        {answer.permitted === true ? (
          <span className="quiet">{strings.permitted}</span>
        ) : (
          <span className="off">
            {answer.permitted === false ? strings.notPermitted : strings.missingInputAConditionIs}
          </span>
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
      <table className={`plain ${css["width"] ?? ""}`}>
        <thead>
          <tr>
            <th>{strings.baseShearOfTheUpper}</th>
            <th className="n">{strings.factorR}</th>
            <th className="n">{strings.transferred}</th>
            <th className="n">{strings.ofTheLowerPart}</th>
            <th className="n">{strings.atTheBase}</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            {[answer.V_upper, answer.factor, answer.handed_down, answer.V_lower, answer.V_base].map((v, i) => (
              <td key={i} className="n ours">
                {i === 1 ? `× ${trimmed(v)}` : strings.kn(figures(v))}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </section>
  );
}
