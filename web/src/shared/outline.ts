/** The corners of a floor as they are typed: x, y of each, with semicolons between them. */
export const cornersText = (corners: readonly (readonly number[])[]): string =>
  corners.map((c) => `${String(c[0] ?? 0)}, ${String(c[1] ?? 0)}`).join("; ");

/** Corners from what was typed; null where it is not three or more points of two numbers. */
export function readCorners(text: string): [number, number][] | null {
  const points = text
    .split(/[;\n]/)
    .map((p) => p.trim())
    .filter(Boolean)
    .map((p) => p.split(/[\s,]+/).map(Number));
  return points.length >= 3 && points.every((p) => p.length === 2 && p.every(Number.isFinite))
    ? points.map(([x = 0, y = 0]) => [x, y])
    : null;
}

/** Path of an upright cross of `reach` about a point. */
export const cross = (x: number, y: number, reach: number): string =>
  `M${String(x - reach)} ${String(y)}h${String(2 * reach)}M${String(x)} ${String(y - reach)}v${String(2 * reach)}`;
