import type { Cause, Causes, Check, Explanation } from "../shared/api/client";
import { strings } from "./strings";

/** What was done, in words: of a set of slips all of them. */
export const wordsOf = (cause: Explanation): string => cause.slips.map((s) => s.words).join(strings.and);

export const codesOf = (cause: Explanation): string =>
  [...new Set(cause.slips.flatMap((s) => (s.code ? [s.code] : [])))].join(", ");

/** The name of a cause in an address: its place in the list, and of another explanation its place among those. */
export const nameOf = (cause: number, other?: number): string =>
  other === undefined ? String(cause) : `${String(cause)}.${String(other)}`;

/** The cause of a name; none where there is none. */
export function named(causes: Causes | undefined, name: string | null): Explanation | undefined {
  if (!causes || !name || !/^\d+(\.\d+)?$/.test(name)) return undefined;
  const [first = "", second] = name.split(".");
  const cause = causes.causes[Number(first)];
  return second === undefined ? cause : cause?.others[Number(second)];
}

export interface Proposal {
  name: string;
  cause: Explanation;
}

/** What explains a check, best first, each with what else explains the same. */
export const proposalsFor = (causes: Causes | undefined, check: string): Proposal[] =>
  (causes?.causes ?? []).flatMap((cause: Cause, i) =>
    cause.explains.includes(check)
      ? [
          { name: nameOf(i), cause },
          ...cause.others
            .map((other, j) => ({ name: nameOf(i, j), cause: other }))
            .filter((p) => p.cause.explains.includes(check)),
        ]
      : [],
  );

/** The check at which a cause starts: the first origin that it explains. */
export const startOf = (cause: Explanation, checks: readonly Check[]): Check | undefined => {
  const explained = checks.filter((c) => cause.explains.includes(c.id));
  return explained.find((c) => c.role === "origin") ?? explained[0];
};

/** How close it comes, in words. */
export const closenessOf = (cause: Explanation): string =>
  cause.closeness < 5e-4 ? strings.toTheLastDigit : strings.closeness(`${(100 * cause.closeness).toPrecision(1)} %`);

/** Where marks were before a cause was applied, by check: those that it explains. */
export const marksBefore = (cause: Explanation | undefined, checks: readonly Check[]): Map<string, number> => {
  const explained = new Set(cause?.explains ?? []);
  return new Map(checks.filter((c) => explained.has(c.id)).map((c) => [c.id, c.multiples ?? 0]));
};
