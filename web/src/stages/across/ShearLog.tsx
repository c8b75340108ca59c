import { useElementSize } from "@mantine/hooks";
import { useState } from "react";
import { axisMarks } from "../../heightlog/data";
import { figures } from "../../shared/numbers";
import { lineOf, type Direction } from "./across";
import "../../heightlog/heightlog.css";
import { strings } from "./strings";
import css from "./ShearLog.module.css";

interface Props {
  stories: { name: string; height: number; plan?: number[] | null }[];
  shears: { id: string; title: string; X: number[] | null; Y: number[] | null }[];
  direction: Direction;
}

const HEIGHT = 340;
const TOP = 26;
const FOOT = 24;
const STRIP = 158;

/** Story shears of all editions on one vertical scale, the building's outline beside them. */
export function ShearLog({ stories, shears, direction }: Props) {
  const { ref, width } = useElementSize();
  const [hovered, setHovered] = useState<number | null>(null);
  const drawn = shears.filter((s) => s[direction]?.length === stories.length);
  if (stories.length === 0 || drawn.length === 0) return null;
  const levels = stories.reduce<number[]>((all, s) => [...all, (all.at(-1) ?? 0) + s.height], [0]);
  const total = levels.at(-1) ?? 1;
  const bottom = HEIGHT - FOOT;
  const y = (level: number) => bottom - (level / total) * (bottom - TOP - 8);
  const most = Math.max(1e-9, ...drawn.flatMap((s) => s[direction] ?? [])) * 1.05;
  const x = (v: number) => STRIP + (v / most) * Math.max(60, width - STRIP - 12);
  const side = direction === "X" ? 0 : 1;
  const widest = Math.max(1, ...stories.map((s) => s.plan?.[side] ?? 0));
  const path = (values: number[]) => {
    let d = "";
    for (let i = values.length - 1; i >= 0; i--) {
      const v = x(values[i] ?? 0);
      const top = String(y(levels[i + 1] ?? 0));
      d += `${d ? "L" : `M${String(STRIP)} ${top}L`}${String(v)} ${top}V${String(y(levels[i] ?? 0))}`;
    }
    return d;
  };
  return (
    <section className="log" aria-label={strings.storyShears}>
      <h3 className="part">{strings.storyShearsIn(direction)}</h3>
      <div ref={ref}>
        {width > 0 && (
          <svg
            width={width}
            height={HEIGHT}
            role="img"
            aria-label={strings.storyShearsInUnderEach(direction)}
            onMouseLeave={() => {
              setHovered(null);
            }}
          >
            {hovered !== null && (
              <rect
                x={0}
                width={width}
                y={y(levels[hovered + 1] ?? 0)}
                height={y(levels[hovered] ?? 0) - y(levels[hovered + 1] ?? 0)}
                fill="var(--mark)"
              />
            )}
            {stories.map((s, i) => {
              const plan = 76 * ((s.plan?.[side] ?? widest) / widest);
              return (
                <g key={s.name}>
                  <rect
                    x={40 + (76 - plan) / 2}
                    y={y(levels[i + 1] ?? 0)}
                    width={plan}
                    height={y(levels[i] ?? 0) - y(levels[i + 1] ?? 0)}
                    fill="var(--panel)"
                    stroke="var(--ink)"
                  />
                  {(stories.length <= 16 || i % 2 === stories.length % 2) && (
                    <text
                      x={34}
                      y={y(levels[i + 1] ?? 0) + 4}
                      textAnchor="end"
                      className={hovered === i ? "log-name on" : "log-name"}
                    >
                      {s.name.slice(0, 8)}
                    </text>
                  )}
                  <text x={122} y={y(levels[i + 1] ?? 0) + 4} className="log-level">
                    {stories.length <= 16 ? (levels[i + 1] ?? 0).toFixed(1) : ""}
                  </text>
                </g>
              );
            })}
            <text x={width - 8} y={14} textAnchor="end" className="log-unit">
              {strings.kn}
            </text>
            {axisMarks(most, 4).map((m) => (
              <g key={m}>
                <line x1={x(m)} x2={x(m)} y1={TOP} y2={bottom} stroke="var(--line)" strokeDasharray="1 3" />
                <text x={x(m)} y={bottom + 16} textAnchor="middle" className="log-unit">
                  {figures(m, 2)}
                </text>
              </g>
            ))}
            <line x1={0} x2={width} y1={bottom} y2={bottom} stroke="var(--ink)" strokeWidth={1.4} />
            {drawn.map((s) => {
              const line = lineOf(shears.indexOf(s));
              return (
                <path
                  key={s.id}
                  d={path(s[direction] ?? [])}
                  fill="none"
                  stroke={`var(--${line.colour})`}
                  strokeWidth={shears.indexOf(s) === 0 ? 2.6 : 1.7}
                  strokeDasharray={line.dash}
                />
              );
            })}
            {stories.map((s, i) => (
              <rect
                key={s.name}
                x={0}
                width={width}
                y={y(levels[i + 1] ?? 0)}
                height={y(levels[i] ?? 0) - y(levels[i + 1] ?? 0)}
                fill="transparent"
                onMouseEnter={() => {
                  setHovered(i);
                }}
              />
            ))}
          </svg>
        )}
      </div>
      <div className="log-table">
        <table className={`plain ${css["width"] ?? ""}`}>
          <thead>
            <tr>
              <th>{strings.story}</th>
              <th className="n">{strings.levelM}</th>
              {drawn.map((s) => (
                <th key={s.id} className="n">
                  {strings.inKn(s.title)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {[...stories.keys()].reverse().map((i) => (
              <tr
                key={stories[i]?.name}
                className={hovered === i ? "on" : ""}
                onMouseEnter={() => {
                  setHovered(i);
                }}
              >
                <td>{stories[i]?.name}</td>
                <td className="n quiet">{(levels[i + 1] ?? 0).toFixed(1)}</td>
                {drawn.map((s) => (
                  <td key={s.id} className={shears.indexOf(s) === 0 ? "n ours" : "n"}>
                    {figures(s[direction]?.[i] ?? 0)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
