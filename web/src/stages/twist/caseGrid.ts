import type { Recheck } from "../../shared/api/client";

export type TwistStage = NonNullable<Recheck["stages"]["twist"]>;
export type CaseMoved = TwistStage["cases"][number];

/** A field of the matrix: direction and side, with the cases that are there. */
export interface Field {
  direction: "X" | "Y";
  side: "+" | "-" | "0" | "?";
  cases: CaseMoved[];
}

const sideOf = (c: CaseMoved): Field["side"] =>
  c.eccentricity === null ? "?" : c.eccentricity > 0 ? "+" : c.eccentricity < 0 ? "-" : "0";

/** What is required, each direction with the mass to either side, and what else is there. */
export function matrix(cases: CaseMoved[]): Field[] {
  const sides: Field["side"][] = ["+", "-", "0", "?"];
  return (["X", "Y"] as const).flatMap((direction) =>
    sides.flatMap((side) => {
      const own = cases.filter((c) => c.direction === direction && sideOf(c) === side);
      return side === "+" || side === "-" || own.length > 0 ? [{ direction, side, cases: own }] : [];
    }),
  );
}

/** The greatest ratio of a case, of stories whose drifts say something. */
export function greatest(c: CaseMoved): { ratio: number; story: number; word: string } | null {
  let best: { ratio: number; story: number; word: string } | null = null;
  c.ratio.forEach((ratio, story) => {
    if (ratio === null || c.tiny[story]) return;
    if (!best || ratio > best.ratio) best = { ratio, story, word: c.classes?.[story] ?? "" };
  });
  return best;
}

/** The case of a field that turns the most. */
export const worstOf = (cases: CaseMoved[]): CaseMoved | undefined =>
  [...cases].sort((a, b) => (greatest(b)?.ratio ?? 0) - (greatest(a)?.ratio ?? 0))[0];
