import type { Frame } from "../../shared/api/client";
import { strings } from "./strings";

/** Stiffnesses that a group of members can have reduced, as the core names their factors. */
export const REDUCED = [
  ["A", "EA"],
  ["Iy", strings.eiAboutY],
  ["Iz", strings.eiAboutZ],
  ["J", "GJ"],
] as const;
export type Reduced = (typeof REDUCED)[number][0];

/** Groups of members that have a name, and how many members each has. */
export function groupsOf(frame: Frame): { name: string; count: number }[] {
  const counts = new Map<string, number>();
  for (const m of frame.members) if (m.group) counts.set(m.group, (counts.get(m.group) ?? 0) + 1);
  return [...counts].map(([name, count]) => ({ name, count })).sort((a, b) => a.name.localeCompare(b.name));
}

export const factorOf = (frame: Frame, group: string, of: Reduced): number =>
  frame.stiffness_factors?.[group]?.[of] ?? 1;

/** The frame's factors with one of them changed; a group whose factors are all 1 is excluded. */
export function withFactor(
  frame: Frame,
  group: string,
  of: Reduced,
  value: number,
): NonNullable<Frame["stiffness_factors"]> {
  const factors = Object.fromEntries(
    REDUCED.map(([key]) => [key, key === of ? value : factorOf(frame, group, key)]),
  ) as Record<Reduced, number>;
  const others = Object.fromEntries(Object.entries(frame.stiffness_factors ?? {}).filter(([name]) => name !== group));
  return Object.values(factors).every((f) => f === 1) ? others : { ...others, [group]: factors };
}
