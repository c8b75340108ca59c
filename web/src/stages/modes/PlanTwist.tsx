import type { ModelFloor } from "../../model/answers";
import { rigid } from "../../model/geometry";
import { strings } from "./strings";

type Movement = readonly [number, number, number];

interface Props {
  floors: ModelFloor[];
  shape: readonly Movement[];
  theirs: readonly Movement[] | null;
  scale: number;
}

const SIZE = 236;

/** Floors in plan at full swing, the topmost strongest, over where they rest. */
export function PlanTwist({ floors, shape, theirs, scale }: Props) {
  const all = floors.flatMap((f) => f.corners);
  if (all.length === 0) return null;
  const reach = 1.35;
  const [x0, x1] = [Math.min(...all.map((p) => p[0])), Math.max(...all.map((p) => p[0]))];
  const [y0, y1] = [Math.min(...all.map((p) => p[1])), Math.max(...all.map((p) => p[1]))];
  const unit = SIZE / (reach * Math.max(x1 - x0, y1 - y0, 1));
  const height = Math.min(SIZE, Math.max(130, (y1 - y0) * unit * reach + 30));
  const place = (p: readonly [number, number]) =>
    `${String(SIZE / 2 + (p[0] - (x0 + x1) / 2) * unit)},${String(height / 2 - (p[1] - (y0 + y1) / 2) * unit)}`;
  const outline = (floor: ModelFloor, m: Movement | undefined) =>
    floor.corners
      .map((c) => {
        const [dx, dy] = m ? rigid(c, floor.centre, m) : [0, 0];
        return place([c[0] + dx * scale, c[1] + dy * scale]);
      })
      .join(" ");
  const top = floors.at(-1),
    last = floors.length - 1;
  return (
    <svg className="modes-plan" width={SIZE + 2} height={height} role="img" aria-label={strings.floorsInPlanAtFull}>
      {floors[0] && (
        <polygon points={outline(floors[0], undefined)} fill="none" stroke="var(--quiet)" strokeDasharray="3 3" />
      )}
      {floors.map((f, i) => (
        <polygon
          key={f.name}
          points={outline(f, shape[i])}
          fill="none"
          stroke="var(--ours)"
          strokeWidth={i === last ? 2.2 : 1}
          opacity={i === last ? 1 : 0.18 + (0.5 * (i + 1)) / floors.length}
        />
      ))}
      {top && theirs?.[last] && (
        <polygon
          points={outline(top, theirs[last])}
          fill="none"
          stroke="var(--theirs)"
          strokeWidth={1.6}
          strokeDasharray="5 3"
        />
      )}
      <text x={8} y={height - 8} fontSize={11} fill="var(--quiet)">
        {strings.planSeenFromAbove}
      </text>
    </svg>
  );
}
