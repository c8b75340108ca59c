import { SymbolSpans } from "../shared/Symbol";
import { figures, percent, trimmed } from "../shared/numbers";
import { axisMarks, type Track } from "./data";

/** Space above and below the tracks, px. */
export const TOP = 34;
export const FOOT = 26;

interface Props {
  track: Track;
  x: number;
  width: number;
  bottom: number;
  y: (level: number) => number;
  levels: number[];
  hovered: number | null;
}

/** One track: theirs hollow, ours solid, what is beyond the tolerance shaded between the two. */
export function TrackView({ track, x, width, bottom, y, levels, hovered }: Props) {
  const { title, unit, shape } = track;
  const most =
    Math.max(
      1e-9,
      ...[
        ...track.theirs,
        ...track.ours,
        ...(track.against?.values ?? []),
        ...(track.also ?? []),
        ...(track.before ?? []),
        ...(track.limits ?? []).flatMap((l) => l.values),
      ].map((v) => (v ?? 0) - (track.from ?? 0)),
    ) * 1.06;
  const from = track.from ?? 0;
  const at = (v: number) => x + (Math.max(v - from, 0) / most) * width;
  // an edge that is the same all the way up is stated at its foot
  const edges = (track.limits ?? []).flatMap((l) => (new Set(l.values).size === 1 && l.values[0] ? [l.values[0]] : []));
  const rows = track.ours.map((ours, i) => ({
    i,
    ours,
    theirs: track.theirs[i] ?? null,
    against: track.against?.values[i] ?? null,
    out: track.out[i] ?? false,
    floor: y(levels[i + 1] ?? 0),
    base: y(levels[i] ?? 0),
  }));
  // story shears hold over the height of their story, so they step at the floors
  const stepPath = (side: "ours" | "theirs") => {
    let path = "";
    for (const r of [...rows].reverse()) {
      const v = r[side];
      if (v === null) continue;
      const start = path ? "L" : `M${String(x)} ${String(r.floor)}L`;
      path += `${start}${String(at(v))} ${String(r.floor)}V${String(r.base)}`;
    }
    return path;
  };
  const read = hovered === null ? undefined : rows[hovered];
  const deviation =
    read?.out && read.theirs !== null && read.ours ? percent((read.theirs - read.ours) / read.ours) : "";
  const off = deviation && (
    <tspan fill="var(--off-text)" fontWeight={600}>
      {deviation}
    </tspan>
  );
  // where three numbers do not stand side by side, the deviation takes the place of the unit
  const narrow = width < 130;
  return (
    <g>
      <rect x={x} y={TOP} width={width} height={bottom - TOP} fill="none" stroke="var(--line)" />
      <text x={x} y={14} className="log-title">
        <SymbolSpans text={title} />
      </text>
      <text x={x + width} y={14} textAnchor="end" className="log-unit">
        {narrow && off ? off : unit}
      </text>
      {axisMarks(most, width > 130 ? 3 : 2)
        .map((m) => m + from)
        .filter((m) => edges.every((e) => Math.abs(at(m) - at(e)) > 22))
        .map((m) => (
          <g key={m}>
            <line x1={at(m)} x2={at(m)} y1={TOP} y2={bottom} stroke="var(--line)" strokeDasharray="1 3" />
            <text x={at(m)} y={bottom + 16} textAnchor="middle" className="log-unit">
              {from ? m.toFixed(1) : figures(m, 2)}
            </text>
          </g>
        ))}
      {rows.map((r) => {
        const was = track.before?.[r.i] ?? null;
        return (
          was !== null && (
            <line
              key={`before ${String(r.i)}`}
              x1={at(was)}
              x2={at(was)}
              y1={r.floor - 7}
              y2={r.floor + 7}
              stroke="var(--ours)"
              strokeWidth={1.4}
              strokeDasharray="2 2"
            />
          )
        );
      })}
      {(track.limits ?? []).map((limit) => (
        <Edge key={limit.words} rows={rows} values={limit.values} at={at} words={limit.words} right={x + width} />
      ))}
      {edges.map((e) => (
        <text key={e} x={at(e)} y={bottom + 16} textAnchor="middle" className="log-unit" fill="var(--limit)">
          {trimmed(e)}
        </text>
      ))}
      {shape === "line" && (
        <g>
          {(
            [
              ["ours", rows.map((r) => r.ours)],
              ["theirs", rows.map((r) => r.theirs)],
              ["theirs", track.also ?? []],
            ] as const
          ).map(([side, values], k) => (
            <polyline
              key={k}
              points={[
                `${String(x)},${String(bottom)}`,
                ...rows.flatMap((r) => {
                  const value = values[r.i] ?? null;
                  return value === null ? [] : [`${String(at(value))},${String(r.floor)}`];
                }),
              ].join(" ")}
              fill="none"
              stroke={`var(--${side})`}
              strokeWidth={side === "ours" ? 2.4 : 1.6}
              strokeDasharray={side === "ours" ? undefined : "4 3"}
              visibility={values.every((v) => v === null) ? "hidden" : undefined}
            />
          ))}
        </g>
      )}
      {shape === "bars" &&
        rows.map((r) => (
          <g key={r.i} opacity={track.faint?.[r.i] ? 0.35 : undefined}>
            {r.out && r.ours !== null && r.theirs !== null && (
              <rect
                x={Math.min(at(r.ours), at(r.theirs))}
                width={Math.abs(at(r.ours) - at(r.theirs))}
                y={r.floor - 6}
                height={12}
                fill="var(--shade)"
              />
            )}
            {r.ours !== null && (
              <line x1={x} x2={at(r.ours)} y1={r.floor} y2={r.floor} stroke="var(--ours)" strokeWidth={4} />
            )}
            {r.against !== null && (
              <line
                x1={at(r.against)}
                x2={at(r.against)}
                y1={r.floor - 8}
                y2={r.floor + 8}
                stroke="var(--ink)"
                strokeWidth={1.6}
              />
            )}
            {r.theirs !== null && (
              <circle
                cx={at(r.theirs)}
                cy={r.floor}
                r={4.5}
                fill="var(--ground)"
                stroke="var(--theirs)"
                strokeWidth={1.6}
              />
            )}
          </g>
        ))}
      {shape === "steps" && (
        <g>
          {rows.map(
            (r) =>
              r.out &&
              r.ours !== null &&
              r.theirs !== null && (
                <rect
                  key={r.i}
                  x={Math.min(at(r.ours), at(r.theirs))}
                  width={Math.abs(at(r.ours) - at(r.theirs))}
                  y={r.floor}
                  height={r.base - r.floor}
                  fill="var(--shade)"
                />
              ),
          )}
          <path d={stepPath("ours")} fill="none" stroke="var(--ours)" strokeWidth={2.4} />
          <path d={stepPath("theirs")} fill="none" stroke="var(--theirs)" strokeWidth={1.5} strokeDasharray="4 3" />
        </g>
      )}
      {read && (
        <text x={x + width} y={28} textAnchor="end" className="log-read">
          <tspan className="theirs" fill="var(--theirs)">
            {track.texts[read.i] ?? "–"}
          </tspan>
          <tspan> / </tspan>
          <tspan fill="var(--ours)" fontWeight={640}>
            {read.ours === null ? "–" : figures(read.ours)}
          </tspan>
          {!narrow && off && <tspan> {off}</tspan>}
        </text>
      )}
    </g>
  );
}

/** An edge that values are checked against: a line over the height, hatched on the side that is out. */
function Edge({
  rows,
  values,
  at,
  words,
  right,
}: {
  rows: { i: number; floor: number; base: number }[];
  values: (number | null)[];
  at: (v: number) => number;
  words: string;
  right: number;
}) {
  return (
    <g stroke="var(--limit)">
      <title>{words}</title>
      {rows.map((r) => {
        const value = values[r.i] ?? null;
        if (value === null) return null;
        const edge = at(value);
        const lines = Math.max(1, Math.floor((r.base - r.floor) / 14));
        return (
          <g key={r.i}>
            <line x1={edge} x2={edge} y1={r.floor} y2={r.base} strokeWidth={1.4} />
            {Array.from({ length: lines }, (_, k) => r.floor + ((k + 0.7) * (r.base - r.floor)) / lines).map((y) => (
              <line
                key={y}
                x1={edge}
                x2={Math.min(edge + 7, right)}
                y1={y}
                y2={y - Math.min(7, right - edge)}
                strokeWidth={0.8}
              />
            ))}
          </g>
        );
      })}
    </g>
  );
}
