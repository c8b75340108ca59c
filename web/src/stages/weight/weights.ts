import type { ModelFloor } from "../../model/answers";
import type { Check, Recheck } from "../../shared/api/client";

export const GRAVITY = 9.80665;

/** One story: weights of the static method and mass × g, kN; null where a side has none. */
export interface WeightRow {
  name: string;
  w: number | null;
  ownWeight: number | null;
  theirMass: number | null;
  ownMass: number | null;
  weightCheck: Check | undefined;
  massCheck: Check | undefined;
}

/** Weights by story, bottom to top: theirs from their tables, ours from the brief and from our own model. */
export function weightRows(recheck: Recheck, floors: readonly ModelFloor[]): WeightRow[] {
  const own = recheck.steps.independent.find((s) => s.id === "w");
  const ours = own && own.source !== "adopted" && Array.isArray(own.value) ? own.value : [];
  const number = (check: Check | undefined) => (typeof check?.theirs?.value === "number" ? check.theirs.value : null);
  return recheck.stories.map((name, i) => {
    const weightCheck = recheck.checks.find((c) => c.quantity === "w" && c.story === name);
    const massCheck = recheck.checks.find((c) => c.quantity === "m" && c.story === name);
    const mass = number(massCheck), floor = floors.find((f) => f.name === name), w = ours[i];
    return {
      name, weightCheck, massCheck, w: number(weightCheck), ownWeight: typeof w === "number" ? w : null,
      theirMass: mass === null ? null : mass * GRAVITY, ownMass: floor ? floor.mass * GRAVITY : null,
    };
  });
}
