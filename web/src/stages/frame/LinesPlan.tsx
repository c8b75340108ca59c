import { cross } from "../../shared/outline";
import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import type { ModelFloor } from "../../model/answers";
import { endsOf } from "../../model/geometry";
import { centreOfStiffness, type Placed } from "./lines";
import { strings } from "./strings";

interface Props {
  floor: ModelFloor | undefined;
  plan: number[] | null;
  lines: Placed[];
  chosen: number | null;
  onChoose: (index: number) => void;
  onMove: (index: number, at: [number, number]) => void;
}

const WIDTH = 400;
const HEIGHT = 300;
const MARGIN = 34;
/** m, what a dragged line snaps to */
const SNAP = 0.25;

/** Lateral lines in plan: drag one, or move it with the arrow keys; both centres are marked. */
export function LinesPlan({ floor, plan, lines, chosen, onChoose, onMove }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<{ index: number; at: [number, number] } | null>(null);
  const centre: [number, number] = floor?.centre ?? [0, 0];
  const half = plan ? [(plan[0] ?? 0) / 2, (plan[1] ?? 0) / 2] : null;
  const corners =
    floor?.corners ??
    (half
      ? (
          [
            [-1, -1],
            [1, -1],
            [1, 1],
            [-1, 1],
          ] as const
        ).map(([a, b]): [number, number] => [centre[0] + a * (half[0] ?? 0), centre[1] + b * (half[1] ?? 0)])
      : []);
  const all = [...corners, ...lines.flatMap((p) => endsOf(p.line))];
  const [x0, x1] = [Math.min(...all.map((p) => p[0]), -1), Math.max(...all.map((p) => p[0]), 1)];
  const [y0, y1] = [Math.min(...all.map((p) => p[1]), -1), Math.max(...all.map((p) => p[1]), 1)];
  const unit = Math.min((WIDTH - 2 * MARGIN) / (x1 - x0), (HEIGHT - 2 * MARGIN) / (y1 - y0));
  const sx = (x: number) => WIDTH / 2 + (x - (x0 + x1) / 2) * unit,
    sy = (y: number) => HEIGHT / 2 - (y - (y0 + y1) / 2) * unit;
  const stiff = centreOfStiffness(lines.map((p) => p.line));
  const greatest = Math.max(...lines.map((p) => p.line.stiffness), 1);
  const placeOf = (e: PointerEvent): [number, number] => {
    const box = svg.current?.getBoundingClientRect();
    const px = e.clientX - (box?.left ?? 0),
      py = e.clientY - (box?.top ?? 0);
    const snap = (v: number) => Math.round(v / SNAP) * SNAP;
    return [snap((px - WIDTH / 2) / unit + (x0 + x1) / 2), snap((HEIGHT / 2 - py) / unit + (y0 + y1) / 2)];
  };
  const key = (e: KeyboardEvent, { line, index }: Placed) => {
    const by = (
      { ArrowLeft: [-SNAP, 0], ArrowRight: [SNAP, 0], ArrowUp: [0, SNAP], ArrowDown: [0, -SNAP] } as Record<
        string,
        [number, number] | undefined
      >
    )[e.key];
    if (!by) return;
    e.preventDefault();
    onMove(index, [(line.at[0] ?? 0) + by[0], (line.at[1] ?? 0) + by[1]]);
  };
  return (
    <svg
      ref={svg}
      className="lines-plan"
      width={WIDTH}
      height={HEIGHT}
      role="group"
      aria-label={strings.lateralLinesInPlan}
      onPointerMove={(e) => {
        if (drag) setDrag({ ...drag, at: placeOf(e) });
      }}
      onPointerUp={() => {
        if (drag) {
          onMove(drag.index, drag.at);
          setDrag(null);
        }
      }}
    >
      {corners.length > 0 && (
        <polygon
          points={corners.map((c) => `${String(sx(c[0]))},${String(sy(c[1]))}`).join(" ")}
          fill="none"
          stroke="var(--quiet)"
        />
      )}
      {lines.map((p) => {
        const { line, index } = p;
        const [a, b] = endsOf(drag?.index === index ? { ...line, at: drag.at } : line);
        return (
          <g
            key={index}
            className="line"
            role="button"
            tabIndex={0}
            aria-label={strings.atMArrowKeysMove(line.name ? line.name : "line", line.at.join(", "))}
            aria-pressed={index === chosen}
            onPointerDown={(e) => {
              e.preventDefault();
              onChoose(index);
              setDrag({ index, at: [line.at[0] ?? 0, line.at[1] ?? 0] });
            }}
            onFocus={() => {
              onChoose(index);
            }}
            onKeyDown={(e) => {
              key(e, p);
            }}
          >
            <line x1={sx(a[0])} y1={sy(a[1])} x2={sx(b[0])} y2={sy(b[1])} stroke="transparent" strokeWidth={18} />
            <line
              x1={sx(a[0])}
              y1={sy(a[1])}
              x2={sx(b[0])}
              y2={sy(b[1])}
              stroke={index === chosen ? "var(--theirs)" : "var(--ours)"}
              strokeWidth={2 + (5 * line.stiffness) / greatest}
            />
          </g>
        );
      })}
      <g aria-label={strings.centreOfMass}>
        <path d={cross(sx(centre[0]), sy(centre[1]), 6)} stroke="var(--ink)" strokeWidth={2} />
      </g>
      {stiff && <circle cx={sx(stiff[0])} cy={sy(stiff[1])} r={6} fill="none" stroke="var(--ours)" strokeWidth={2} />}
      <text x={10} y={HEIGHT - 10}>
        {strings.centreOfMassLegend}
      </text>
      <text x={110} y={HEIGHT - 10}>
        {strings.centreOfStiffness}
        {stiff ? strings.mApart(Math.hypot(stiff[0] - centre[0], stiff[1] - centre[1]).toFixed(2)) : ""}
      </text>
      <text x={WIDTH - 10} y={18} textAnchor="end">
        {strings.xYThickerStiffer}
      </text>
    </svg>
  );
}
