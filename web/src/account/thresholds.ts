import type { Schemas } from "../shared/api/client";

type Thresholds = Schemas["Thresholds"];
type Entry = Pick<Schemas["ThresholdEntry"], "name" | "value">;

/** The numbers of a threshold as they are set, or its default. */
export function numbersOf(set: Thresholds, { name, value }: Entry): number[] {
  const own = set[name as keyof Thresholds];
  return own === undefined || own === null ? value : Array.isArray(own) ? own : [own];
}

/** The thresholds with one number changed; back to the default where it is cleared, or is the default again. */
export function withNumber(set: Thresholds, entry: Entry, at: number, number: number | null): Thresholds {
  const next = numbersOf(set, entry).map((v, i) => (i === at ? (number ?? entry.value[i] ?? v) : v));
  const rest = Object.fromEntries(Object.entries(set).filter(([name]) => name !== entry.name)) as Thresholds;
  const same = next.every((v, i) => v === entry.value[i]);
  return same ? rest : { ...rest, [entry.name]: entry.value.length > 1 ? next : next[0] };
}
