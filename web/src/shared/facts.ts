import type { Fact } from "./api/client";
import { trimmed, unitLabel } from "./numbers";
import { strings } from "./strings";

/** What a fact's value comes to in words; of values by story, that of the one assessed. */
export function factValue(value: Fact["value"], index: number | null, unit = ""): string {
  if (value === null) return strings.notKnown;
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value === "number") return withUnit(value, unit);
  if (typeof value === "string") return words(value);
  const element = index === null ? undefined : value[index];
  if (typeof element === "number") return withUnit(element, unit);
  const numbers = value.filter((v): v is number => typeof v === "number");
  if (numbers.length > 0) return strings.to(trimmed(Math.min(...numbers)), withUnit(Math.max(...numbers), unit));
  return value.length === 0 ? "none" : value.map((v) => words(String(v))).join(", ");
}

/** Names in words; a symbol such as S_D keeps its index. */
const words = (name: string) => name.replaceAll(/(?<=[A-Za-z]{2})_(?=[a-z])/g, " ");
const withUnit = (value: number, unit: string) => trimmed(value) + (unit ? ` ${unitLabel(unit)}` : "");

const RANK: Record<Fact["source"], number> = { assumed: 1, submitted: 2, found: 3, declared: 4 };

/** What is contradicted first, then what is assumed: what a reviewer looks at before the rest. */
export const byDoubt = (facts: Fact[]): Fact[] =>
  [...facts].sort((a, b) => rank(a) - rank(b) || a.meaning.localeCompare(b.meaning));
const rank = (fact: Fact) => (fact.contradicted_by ? 0 : RANK[fact.source]);

/** Facts that a check depends on. */
export const factsOf = (facts: Fact[], check: string): Fact[] => facts.filter((f) => f.used_by.includes(check));
