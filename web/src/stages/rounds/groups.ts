import type { ComparedValue, Difference } from "../../shared/api/client";
import { strings } from "./strings";

export const GROUPS = ["settled", "open", "undecided", "new", "changed", "follows"] as const;
export type Group = (typeof GROUPS)[number];

/** Values of one quantity and direction, which are read together. */
export interface Gathered {
  label: string;
  values: ComparedValue[];
  /** smallest and greatest relative change of those that moved */
  moved: [number, number] | null;
}

/** Values by quantity and direction, in their order; a single one keeps its whole label. */
export function gather(values: ComparedValue[]): Gathered[] {
  const groups = new Map<string, ComparedValue[]>();
  for (const value of values) {
    const key = `${headOf(value.label)}|${value.why}|${String(value.finding)}`;
    const group = groups.get(key);
    if (group) group.push(value);
    else groups.set(key, [value]);
  }
  return [...groups.values()].map((all) => {
    const moves = all.flatMap((v) => (v.moved === null ? [] : [v.moved]));
    const [first] = all;
    return {
      label: all.length === 1 && first ? first.label : headOf(first?.label ?? ""),
      values: all,
      moved: moves.length > 0 ? [Math.min(...moves), Math.max(...moves)] : null,
    };
  });
}

/** What was submitted before and what is now; a check that is made only where something is out may have no value. */
export const endsOf = ({ before, after, was, now, why }: ComparedValue): string => {
  const noneBefore = why === "it was no deviation" ? strings.nothingOut : strings.notStated;
  const noneNow = why === "resolved by the numbers" ? strings.nothingOut : strings.notStated;
  return `${before ?? end(was, noneBefore)} → ${after ?? end(now, noneNow)}`;
};

/** A verdict where there is no value; without a check, why there is none. */
const end = (verdict: string, none: string): string =>
  verdict === "" ? none : verdict === "differs" || verdict === "breaches" ? strings.out : strings.notStated;

/** Symbol and direction of a label: it begins with them. */
const headOf = (label: string): string => {
  const [symbol = "", second = ""] = label.split(" ");
  return second === "X" || second === "Y" ? `${symbol} ${second}` : symbol;
};

const NOT_REQUIRED = "no finding requires it";

/** The values of a group; what changed unasked stands apart from what may follow from a required change. */
export const valuesOf = (difference: Difference, group: Group): ComparedValue[] => {
  if (group !== "changed" && group !== "follows") return difference[group];
  return difference.changed.filter((v) => (v.why === NOT_REQUIRED) === (group === "changed"));
};

/** The group that is worth the first look: what is wrong anew, then what is not right yet. */
export const firstGroup = (difference: Difference): Group =>
  (["new", "open", "undecided", "changed", "settled"] as const).find((g) => valuesOf(difference, g).length > 0) ??
  "settled";
