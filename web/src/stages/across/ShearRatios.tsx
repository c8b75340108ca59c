import type { Across } from "../../shared/api/client";
import { figures } from "../../shared/numbers";
import { ASPECTS, telling, times, type Direction } from "./across";
import { strings } from "./strings";
import css from "./ShearRatios.module.css";

interface Props {
  across: Across;
  direction: Direction;
  titleOf: (id: string) => string;
}

const WIDTH = 150;

/** Why the base shears part: one ingredient after the other removed of both; the factors multiply to the ratio. */
export function ShearRatios({ across, direction, titleOf }: Props) {
  const ratios = across.shear_ratios.filter((p) => p.direction === direction);
  if (ratios.length === 0) return null;
  const reach = Math.max(Math.log(1.5), ...ratios.flatMap((p) => p.factors.map((f) => Math.abs(Math.log(f.factor)))));
  const x = (factor: number) => WIDTH / 2 + (Math.log(factor) / reach) * (WIDTH / 2 - 4);
  return (
    <section aria-label={strings.whyTheBaseShearsDiffer}>
      <h3 className="part">{strings.whyTheBaseShearsDifferIn(direction)}</h3>
      <p className={`quiet ${css["smallLine"] ?? ""}`}>
        {strings.ratioOfEachBaseShear(titleOf(across.governing), figures(ratios[0]?.period ?? 0, 3))}
      </p>
      <div className="shear-ratios">
        {ratios.map((p) => {
          const { apart, alike } = telling(p.factors);
          return (
            <table key={p.edition} className="plain shear-ratio">
              <thead>
                <tr>
                  <th>{titleOf(p.edition)}</th>
                  <th className="n">V {times(p.ratio)}</th>
                  <th aria-hidden />
                </tr>
              </thead>
              <tbody>
                {apart.map((f) => (
                  <tr key={f.aspect}>
                    <td>{ASPECTS[f.aspect] ?? f.aspect}</td>
                    <td className="n">{times(f.factor)}</td>
                    <td aria-hidden>
                      <svg width={WIDTH} height={14}>
                        <line x1={WIDTH / 2} x2={WIDTH / 2} y1={0} y2={14} stroke="var(--ink)" />
                        <rect
                          x={Math.min(WIDTH / 2, x(f.factor))}
                          width={Math.abs(x(f.factor) - WIDTH / 2)}
                          y={4}
                          height={6}
                          fill="var(--ours)"
                        />
                      </svg>
                    </td>
                  </tr>
                ))}
                {alike > 0 && (
                  <tr>
                    <td colSpan={3} className="quiet">
                      {strings.moreHaveNoEffect(alike)}
                    </td>
                  </tr>
                )}
              </tbody>
            </table>
          );
        })}
      </div>
    </section>
  );
}
