import type { Schemas } from "../../shared/api/client";
import { trimmed } from "../../shared/numbers";

/** Declared action levels: the greatest drift of each, its limit, and what is lacking where it isn't decided. */
export function LevelsTable({ levels, stories }: { levels: Schemas["LevelDrifts"][]; stories: string[] }) {
  return (
    <section aria-label="Action levels">
      <h3 className="part">Action levels</h3>
      <table className="plain">
        <thead>
          <tr>
            <th>level</th>
            <th>drifts of</th>
            <th className="n">greatest Δ/h</th>
            <th>at</th>
            <th className="n">limit</th>
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
                      : `the design action × ${trimmed(level.factor)}`}
                </td>
                <td className={over ? "n limit" : "n ours"}>{level.ratio ? trimmed(level.ratio[worst] ?? 0) : "–"}</td>
                <td>{stories[worst] ?? ""}</td>
                <td className="n">{level.limit === null ? "–" : trimmed(level.limit)}</td>
                <td className={over ? "limit" : "quiet"}>
                  {level.verdicts === null ? `not decided: ${level.needs} is missing` : over ? "exceeded" : "met"}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
