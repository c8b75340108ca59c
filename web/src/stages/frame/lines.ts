import type { LateralLine } from "../../shared/api/client";
import { strings } from "./strings";

export interface Placed {
  line: LateralLine;
  /** place in the list of all lines */
  index: number;
}

/** Lines of one story with their places in the list. */
export const linesOf = (lines: readonly LateralLine[], story: number): Placed[] =>
  lines.map((line, index) => ({ line, index })).filter(({ line }) => line.story === story);

/** The lines with those of one story copied to all the others. */
export function copiedToAll(lines: readonly LateralLine[], story: number, stories: number): LateralLine[] {
  const storyLines = linesOf(lines, story).map((p) => p.line);
  return Array.from({ length: stories }, (_, i) => storyLines.map((l) => ({ ...l, story: i }))).flat();
}

/** Centre of stiffness of lines in plan, m: where a force makes no rotation; null where a direction has no lines. */
export function centreOfStiffness(lines: readonly LateralLine[]): [number, number] | null {
  let xx = 0,
    xy = 0,
    yy = 0,
    mx = 0,
    my = 0;
  for (const l of lines) {
    const turn = ((l.angle ?? 0) * Math.PI) / 180,
      c = Math.cos(turn),
      s = Math.sin(turn);
    const [x = 0, y = 0] = l.at;
    const arm = x * s - y * c;
    xx += l.stiffness * c * c;
    xy += l.stiffness * c * s;
    yy += l.stiffness * s * s;
    mx += l.stiffness * c * arm;
    my += l.stiffness * s * arm;
  }
  const det = xx * yy - xy * xy;
  if (Math.abs(det) <= 1e-9 * (xx + yy) ** 2) return null;
  // the point that a movement without rotation pushes through: [xx xy; xy yy] [-y; x] = [mx; my]
  const minusY = (yy * mx - xy * my) / det,
    x = (xx * my - xy * mx) / det;
  return [x, -minusY];
}

/** Lines pasted from a spreadsheet: story, x, y, angle, stiffness, name; every row that cannot be read is named. */
export function pastedLines(text: string, stories: string[]): { lines: LateralLine[]; problems: string[] } {
  const lines: LateralLine[] = [],
    problems: string[] = [];
  text.split(/\r?\n/).forEach((raw, n) => {
    if (!raw.trim()) return;
    const cells = raw.split(/[\t;]/).map((c) => c.trim());
    const story = stories.indexOf(cells[0] ?? "");
    const numbers = cells.slice(1, 5).map((c) => Number(c.replace(",", ".")));
    if (story < 0) {
      if (n > 0) problems.push(strings.rowThereIsNoStory(n + 1, cells[0] ?? "", stories.join(", ")));
      return;
    }
    const [x, y, angle, stiffness] = numbers;
    if (
      numbers.length < 4 ||
      numbers.some((v) => !Number.isFinite(v)) ||
      x === undefined ||
      y === undefined ||
      stiffness === undefined ||
      stiffness <= 0
    ) {
      problems.push(strings.rowEnterXMY(n + 1));
      return;
    }
    lines.push({ story, at: [x, y], angle: angle ?? 0, stiffness, name: (cells[5] ?? "").slice(0, 60) });
  });
  return { lines, problems };
}
