import type { Schemas } from "../../shared/api/client";
import { trimmed } from "../../shared/numbers";
import { strings } from "./strings";

/** Declared action levels: the greatest drift of each, its limit, and the missing input if it is not decided. */
export function LevelsTable({ levels, stories }: { levels: Schemas["LevelDrifts"][]; stories: string[] }) {
  return (
    <section aria-label={strings.actionLevels}>
      <h3 className="part">{strings.actionLevels}</h3>
      <table className="plain">
        <thead>
          <tr>
            <th>{strings.level}</th>
            <th>{strings.driftsOf}</th>
            <th className="n">{strings.greatestH}</th>
            <th>{strings.atColumn}</th>
            <th className="n">{strings.limit}</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {levels.map((level) => {
            const worst = level.ratio === null ? -1 : level.ratio.indexOf(Math.max(...level.ratio));
            const over = level.verdicts?.includes(false) ?? false;
            return (
              <tr key={level.name}>
                <td>{level.name}</td>
                <td className="quiet">
                  {level.cases.length > 0
                    ? level.cases.join(", ")
                    : level.factor === null
                      ? "–"
                      : strings.theDesignAction(trimmed(level.factor))}
                </td>
                <td className={over ? "n limit" : "n ours"}>{level.ratio ? trimmed(level.ratio[worst] ?? 0) : "–"}</td>
                <td>{stories[worst] ?? ""}</td>
                <td className="n">{level.limit === null ? "–" : trimmed(level.limit)}</td>
                <td className={over ? "limit" : "quiet"}>
                  {level.verdicts === null
                    ? strings.notDecidedIsMissing(level.needs)
                    : over
                      ? strings.exceeded
                      : strings.met}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
