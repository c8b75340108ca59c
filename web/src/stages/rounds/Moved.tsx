import { SymbolText } from "../../shared/Symbol";
import { percent } from "../../shared/numbers";
import type { ComparedValue } from "../../shared/api/client";
import { endsOf, gather } from "./groups";
import { strings } from "./strings";
import css from "./RoundsPage.module.css";

const MOST_LISTED = 60;

/** Values of a group as they were submitted before and now, those of one quantity together. */
export function Moved({ values, onSelect }: { values: ComparedValue[]; onSelect: (check: string) => void }) {
  const groups = gather(values);
  if (groups.length === 0) return <p className="quiet">{strings.none}</p>;
  return (
    <table className="plain">
      <thead>
        <tr>
          <th>{strings.value}</th>
          <th className="n">{strings.submitted}</th>
          <th className="n">{strings.moved}</th>
        </tr>
      </thead>
      <tbody>
        {groups.slice(0, MOST_LISTED).map(({ label, values: all, moved }) => {
          const [only] = all;
          return (
            <tr key={`${label} ${all[0]?.check ?? ""} ${all[0]?.why ?? ""}`} title={all[0]?.why}>
              <td>
                {only?.check ? (
                  <button
                    type="button"
                    className="linklike"
                    onClick={() => {
                      onSelect(only.check);
                    }}
                  >
                    <SymbolText text={label} />
                  </button>
                ) : (
                  <SymbolText text={label} />
                )}
                {all[0]?.finding != null && <span className="quiet"> #{all[0].finding}</span>}
              </td>
              <td className={`n theirs ${css["values"] ?? ""}`}>
                {all.length > 1 ? strings.places(all.length) : only && endsOf(only)}
              </td>
              <td className="n">{moved && range(moved)}</td>
            </tr>
          );
        })}
      </tbody>
      {groups.length > MOST_LISTED && (
        <tfoot>
          <tr>
            <td colSpan={3} className="quiet">
              {strings.more(groups.length - MOST_LISTED)}
            </td>
          </tr>
        </tfoot>
      )}
    </table>
  );
}

const range = ([least, most]: [number, number]): string =>
  percent(least) === percent(most) ? percent(least) : `${percent(least)} … ${percent(most)}`;
