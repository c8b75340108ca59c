import type { Check, LoadCase } from "../../shared/api/client";

/** The side of the accidental eccentricity as a person writes it: "+5 %", "0", or nothing. */
export const sideWritten = (value: number | null): string => {
  if (value === null) return "";
  const percent = Number((100 * Math.abs(value)).toFixed(3)).toString();
  return value === 0 ? "0" : `${value > 0 ? "+" : "−"}${percent} %`;
};

/** A typed side as a share of the plan dimension: null for nothing, undefined for what cannot be read. */
export function typedSide(text: string): number | null | undefined {
  const plain = text.replace("−", "-").replace("%", "").replace(",", ".").trim();
  if (!plain) return null;
  const value = Number(plain.replace(/\s/g, ""));
  return Number.isFinite(value) && Math.abs(value) <= 100 ? value / 100 : undefined;
}

/** What is not stated of a case though it matters for its kind. */
export function unstated(c: LoadCase): string[] {
  if (!c.kind) return ["kind"];
  if (c.kind !== "static" && c.kind !== "modal") return [];
  return [
    ...(c.direction ? [] : ["direction"]),
    ...(c.eccentricity === null || c.eccentricity === undefined ? ["side"] : []),
    ...(c.kind === "modal" && !c.step ? ["scaling"] : []),
    ...(c.level ? [] : ["results"]),
  ];
}

/** The checks whose verdict is another one than before, and those that are new and deviate. */
export function flips(before: Check[], after: Check[]): Check[] {
  const known = new Map(before.map((c) => [c.id, c.verdict]));
  return after.filter((c) => {
    const was = known.get(c.id);
    return was === undefined ? c.verdict !== "agrees" && c.verdict !== "note" : was !== c.verdict;
  });
}
