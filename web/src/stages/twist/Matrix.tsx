import { Mark, type MarkShape } from "../../shared/Mark";
import { figures } from "../../shared/numbers";
import { greatest, matrix, worstOf, type CaseMoved, type Field } from "./caseGrid";
import { strings } from "./strings";

interface Props {
  cases: CaseMoved[];
  chosen: string;
  onChoose: (name: string) => void;
  /** whether the edition requires both sides */
  asked: boolean;
}

const HEADS: Record<Field["side"], string> = {
  "+": strings.towardPositive,
  "-": strings.towardNegative,
  "0": strings.atTheCentre,
  "?": strings.sideNotStated,
};
const SHAPES: Partial<Record<string, MarkShape>> = { regular: "dot", torsional: "origin", extreme: "breach" };

/** The cases requested, direction by side of the eccentricity: which are there, and how much each turns. */
export function Matrix({ cases, chosen, onChoose, asked }: Props) {
  const fields = matrix(cases);
  const sides = (["+", "-", "0", "?"] as const).filter((s) => fields.some((f) => f.side === s));
  return (
    <table className="matrix" aria-label={strings.requiredCases}>
      <thead>
        <tr>
          <td />
          {sides.map((s) => (
            <th key={s} scope="col">
              {HEADS[s]}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {(["X", "Y"] as const).map((d) => (
          <tr key={d}>
            <th scope="row">{d}</th>
            {sides.map((s) => {
              const field = fields.find((f) => f.direction === d && f.side === s);
              const worst = field ? worstOf(field.cases) : undefined;
              const far = worst ? greatest(worst) : null;
              if (!worst)
                return (
                  <td key={s}>
                    {field && asked && (
                      <span className="matrix-field missing">
                        <Mark shape="gap" />
                        {strings.notSubmitted}
                      </span>
                    )}
                  </td>
                );
              return (
                <td key={s}>
                  <button
                    type="button"
                    className="matrix-field"
                    aria-pressed={worst.case === chosen}
                    onClick={() => {
                      onChoose(worst.case);
                    }}
                  >
                    <span>
                      {far && far.word && <Mark shape={SHAPES[far.word] ?? "open"} />}{" "}
                      <b className="ours">{far ? figures(far.ratio, 3) : strings.tooSmall}</b>
                    </span>
                    <i className="theirs">
                      {worst.case}
                      {field && field.cases.length > 1 ? strings.andMore(field.cases.length - 1) : ""}
                    </i>
                  </button>
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
