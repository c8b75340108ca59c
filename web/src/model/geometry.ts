import { strings } from "./strings";
/** The model as points and segments, whichever depth it has, and how they move in a mode. */

import type { Frame, LateralLine, ReferenceModel } from "../shared/api/client";
import type { ModelFloor } from "./answers";

export type Point = [number, number, number];

export interface Segment {
  id: string;
  a: number;
  b: number;
  group: string;
}

export interface Drawn {
  points: Point[];
  /** id of the node that a point is, or of the floor that it moves with */
  names: string[];
  segments: Segment[];
  supports: number[];
}

/** Displacement X, Y of a point that moves with a floor: movement [x, y, rz] at its centre. */
export function rigid(
  at: readonly [number, number],
  centre: readonly [number, number],
  movement: readonly [number, number, number],
): [number, number] {
  const [x, y, rz] = movement;
  return [x - rz * (at[1] - centre[1]), y + rz * (at[0] - centre[0])];
}

export function drawnFrame(frame: Frame): Drawn {
  const place = new Map(frame.nodes.map((n, i) => [n.id, i]));
  return {
    points: frame.nodes.map((n) => [n.at[0] ?? 0, n.at[1] ?? 0, n.at[2] ?? 0]),
    names: frame.nodes.map((n) => n.id),
    segments: frame.members.flatMap((m) => {
      const a = place.get(m.i),
        b = place.get(m.j);
      return a === undefined || b === undefined ? [] : [{ id: m.id, a, b, group: m.group ? m.group : "members" }];
    }),
    supports: (frame.supports ?? []).flatMap((s) => place.get(s.node) ?? []),
  };
}

/** Half the drawn length of a lateral line, m; its stiffness does not show in it. */
const HALF = 2;

/** Ends in plan of a lateral line as it is drawn. */
export function endsOf(line: Pick<LateralLine, "at" | "angle">): [[number, number], [number, number]] {
  const turn = ((line.angle ?? 0) * Math.PI) / 180;
  const [x = 0, y = 0] = line.at;
  const dx = HALF * Math.cos(turn),
    dy = HALF * Math.sin(turn);
  return [
    [x - dx, y - dy],
    [x + dx, y + dy],
  ];
}

/** Lateral lines as upright panels between floors; names are those of the floors, "" for the base. */
export function drawnLines(lines: LateralLine[], floors: ModelFloor[]): Drawn {
  const drawn: Drawn = { points: [], names: [], segments: [], supports: [] };
  const point = (at: [number, number], floor: number) => {
    drawn.points.push([
      at[0],
      at[1],
      floor < 0 ? (floors[0] ? floors[0].z - floors[0].height : 0) : (floors[floor]?.z ?? 0),
    ]);
    drawn.names.push(floor < 0 ? "" : (floors[floor]?.name ?? ""));
    if (floor < 0) drawn.supports.push(drawn.points.length - 1);
    return drawn.points.length - 1;
  };
  lines.forEach((line, n) => {
    const [p, q] = endsOf(line);
    const corners = [point(p, line.story - 1), point(q, line.story - 1), point(q, line.story), point(p, line.story)];
    corners.forEach((a, k) => {
      const b = corners[(k + 1) % 4];
      if (b !== undefined)
        drawn.segments.push({ id: line.name ? line.name : strings.line(n + 1), a, b, group: "walls" });
    });
  });
  return drawn;
}

/** What is drawn of a model; floors of an answer place its lateral lines. */
export function drawnOf(model: ReferenceModel, floors: ModelFloor[]): Drawn {
  if (model.use === "frame")
    return model.frame ? drawnFrame(model.frame) : { points: [], names: [], segments: [], supports: [] };
  return drawnLines(model.lateral_lines ?? [], floors);
}

/** Displacement of every drawn point that moves with its floor; points of the base stay. */
export function movedByFloors(
  drawn: Drawn,
  floors: ModelFloor[],
  shape: readonly (readonly [number, number, number])[],
): Point[] {
  const place = new Map(floors.map((f, i) => [f.name, i]));
  return drawn.points.map(([x, y], k) => {
    const i = place.get(drawn.names[k] ?? "");
    const floor = i === undefined ? undefined : floors[i],
      movement = i === undefined ? undefined : shape[i];
    return floor && movement ? [...rigid([x, y], floor.centre, movement), 0] : [0, 0, 0];
  });
}

/** What to multiply a shape by so that its greatest movement shows as a twelfth of the building's size. */
export function scaleOf(points: readonly Point[], movement: readonly Point[]): number {
  const span = Math.max(
    1,
    ...[0, 1, 2].map((c) => {
      const v = points.map((p) => p[c] ?? 0);
      return Math.max(...v) - Math.min(...v);
    }),
  );
  const most = Math.max(1e-12, ...movement.map((m) => Math.hypot(...m)));
  return span / 12 / most;
}
