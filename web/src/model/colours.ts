/** How the model is assessed and which colour a group of members has; apart from three.js, which is loaded later. */

export type View = "turn" | "plan" | "along X" | "along Y";

/** Colours of the palette by group of members. */
export const GROUP_COLOURS: Record<string, string> = {
  columns: "ink",
  beams: "quiet",
  walls: "ours",
  braces: "e1",
  members: "ink",
};
const EXTRA = ["e2", "e3", "e4", "e5"];

export function groupColours(groups: string[]): Record<string, string> {
  const others = groups.filter((g) => !(g in GROUP_COLOURS));
  return Object.fromEntries(
    groups.map((g) => [g, GROUP_COLOURS[g] ?? EXTRA[others.indexOf(g) % EXTRA.length] ?? "ink"]),
  );
}
