import type { Across } from "../shared/api/client";
import { trimmed } from "../shared/numbers";
import { SymbolText } from "../shared/Symbol";
import { strings } from "./strings";

type Described = Across["editions"][number];
type Test = Described["tests"][number];

/** Order of the states in the list: those that need attention first. */
const RANK: Record<Test["state"], number> = { "not met": 0, there: 0, "not tested": 1, met: 2, none: 2 };
const words = (state: Test["state"]) =>
  RANK[state] === 0 ? "off" : state === "not tested" ? "quiet untested" : "quiet";

/** The tests of the building that an edition names, one by one, and their consequences. */
export function BuildingTests({ described, open }: { described: Described | undefined; open?: boolean }) {
  const tests = described?.tests ?? [];
  const follows = [
    ...(described?.words.regularity_consequences ?? []),
    ...(described?.words.vertical_consequences ?? []),
  ].filter((t) => !t.startsWith("not tested"));
  if (tests.length === 0 && follows.length === 0) return null;
  const failing = tests.filter((t) => RANK[t.state] === 0).length;
  const untested = tests.filter((t) => t.state === "not tested").length;
  const groups = [...new Set(tests.map((t) => t.group))];
  return (
    <details className="building-tests" open={open}>
      <summary>
        {strings.testsOfTheBuilding}
        {failing > 0 ? <span className="off">{strings.notMet(failing)}</span> : strings.nothingFound}
        {untested > 0 && strings.andNotTested(untested)}
      </summary>
      <table className="plain">
        <thead>
          <tr>
            <th>{strings.test}</th>
            <th>{strings.state}</th>
            <th className="n">{strings.value}</th>
            <th className="n">{strings.limit}</th>
            <th>{strings.by}</th>
            <th>{strings.clause}</th>
          </tr>
        </thead>
        {groups.map((group) => (
          <tbody key={group}>
            <tr className="group">
              <th scope="rowgroup" colSpan={6}>
                {group}
              </th>
            </tr>
            {tests
              .filter((t) => t.group === group)
              .map((t, i) => (
                <tr key={i}>
                  <td>
                    {t.direction && <b>{t.direction} </b>}
                    <SymbolText text={t.words} />
                  </td>
                  <td className={words(t.state)}>{t.state}</td>
                  <td className="n">{t.value === null ? "" : trimmed(t.value)}</td>
                  <td className="n">{t.limit === null ? "" : trimmed(t.limit)}</td>
                  <td className="quiet">{t.basis}</td>
                  <td className="quiet">{t.clause}</td>
                </tr>
              ))}
          </tbody>
        ))}
      </table>
      {follows.length > 0 && (
        <ul className="notes">
          {follows.map((t) => (
            <li key={t}>
              <SymbolText text={t} />
            </li>
          ))}
        </ul>
      )}
    </details>
  );
}
