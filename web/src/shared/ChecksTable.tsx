import type { Check } from "./api/client";
import { movedFrom, useBefore } from "./before";
import { Mark, shapeOf, verdictWords } from "./Mark";
import { oursText, percent, theirsText, unitLabel } from "./numbers";
import { SymbolText } from "./Symbol";
import "./checks.css";
import { strings } from "./strings";

interface Props {
  checks: Check[];
  selected: string | undefined;
  onSelect: (id: string) => void;
  caption: string;
}

/** Theirs and ours side by side, deviations standing out. */
export function ChecksTable({ checks, selected, onSelect, caption }: Props) {
  const before = useBefore();
  if (checks.length === 0) return <p className="quiet">{strings.noValuesHaveBeenSubmitted}</p>;
  return (
    <table className="plain checks">
      <caption>{caption}</caption>
      <thead>
        <tr>
          <th>{strings.value}</th>
          <th className="n">{strings.theirs}</th>
          <th className="n">{strings.ours}</th>
          <th className="n">{strings.deviation}</th>
          <th>{strings.unit}</th>
          <th>{strings.verdict}</th>
        </tr>
      </thead>
      <tbody>
        {checks.map((c) => {
          const ours = c.shown ? c[c.shown] : null;
          const was = movedFrom(before, c);
          return (
            <tr key={c.id} className={c.verdict === "agrees" ? "" : "out"} aria-current={c.id === selected}>
              <td>
                <button
                  type="button"
                  title={c.meaning}
                  onClick={() => {
                    onSelect(c.id);
                  }}
                >
                  <SymbolText text={c.label} />
                </button>
              </td>
              <td className="n theirs" title={c.theirs ? String(c.theirs.value) : undefined}>
                {theirsText(c)}
              </td>
              <td className="n ours" title={ours ? String(ours.value) : undefined}>
                {ours ? oursText(ours.value, c) : "–"}
                {was !== undefined && <small className="was">{strings.was(oursText(was, c))}</small>}
              </td>
              <td className={"n" + (ours && !ours.agrees ? " off" : " quiet")}>
                {ours && ours.deviation !== null ? percent(ours.deviation) : ""}
              </td>
              <td className="quiet">{unitLabel(c.unit)}</td>
              <td className="verdict">
                <Mark shape={shapeOf(c)} /> {verdictWords(c)}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
