import type { Recheck } from "../../shared/api/client";

export type Requirement = Recheck["requirements"][number];
export type Which = "all" | "missing" | "open";

/** Requirements in a state; those that do not apply are in the whole list only. */
export const inState = (requirements: readonly Requirement[], which: Which): Requirement[] =>
  requirements.filter((r) => which === "all" || r.status === which);

/** How many requirements are in each state, and how many apply. */
export function countsOf(requirements: readonly Requirement[]) {
  const count = (status: Requirement["status"]) => requirements.filter((r) => r.status === status).length;
  return {
    shown: count("shown"),
    missing: count("missing"),
    open: count("open"),
    applying: requirements.length - count("not_applicable"),
  };
}

/** The requirement before or after another one; the first where none is chosen. */
export function stepped(shown: readonly Requirement[], chosen: string | null, by: 1 | -1): Requirement | undefined {
  const at = shown.findIndex((r) => r.id === chosen);
  return at < 0 ? shown[0] : shown[Math.min(Math.max(at + by, 0), shown.length - 1)];
}

/** How many requirements of each stage are missing. */
export function missingByStage(requirements: readonly Requirement[]): Record<string, number> {
  const counts: Record<string, number> = {};
  for (const { stage } of inState(requirements, "missing")) counts[stage] = (counts[stage] ?? 0) + 1;
  return counts;
}
