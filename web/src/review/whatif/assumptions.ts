import type { Brief, Check, Recheck } from "../../shared/api/client";
import type { Assumptions } from "../../shared/api/queries";

export const NOTHING_ASSUMED: Assumptions = { patch: {}, theirs: [], ours: [] };

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === "object" && value !== null && !Array.isArray(value);
const texts = (value: unknown): string[] =>
  Array.isArray(value) ? value.filter((v): v is string => typeof v === "string") : [];

/** Assumptions as an address has them. */
export function writeAssumptions({ patch, theirs, ours }: Assumptions): string | null {
  const given = {
    ...(Object.keys(patch).length > 0 ? { patch } : {}),
    ...(theirs.length > 0 ? { theirs } : {}),
    ...(ours.length > 0 ? { ours } : {}),
  };
  return Object.keys(given).length > 0 ? JSON.stringify(given) : null;
}

/** Assumptions out of an address; none where it has none, or what cannot be read. */
export function readAssumptions(written: string | null): Assumptions | undefined {
  if (!written) return undefined;
  try {
    const given: unknown = JSON.parse(written);
    if (!isRecord(given)) return undefined;
    return {
      patch: isRecord(given["patch"]) ? given["patch"] : {},
      theirs: texts(given["theirs"]),
      ours: texts(given["ours"]),
    };
  } catch {
    return undefined;
  }
}

/** A document under a JSON merge patch (RFC 7396). */
export function merged(target: unknown, patch: unknown): unknown {
  if (!isRecord(patch)) return patch;
  const result: Record<string, unknown> = isRecord(target) ? { ...target } : {};
  for (const [name, value] of Object.entries(patch)) {
    if (value === null) Reflect.deleteProperty(result, name);
    else result[name] = merged(result[name], value);
  }
  return result;
}

/** The brief with assumptions adopted: what was otherwise is so. */
export const adopted = (brief: Brief, patch: Record<string, unknown>): Brief => merged(brief, patch) as Brief;

/** The single changes that a patch makes, each with its place. */
export function changesOf(patch: unknown, at: string[] = []): { at: string[]; value: unknown }[] {
  return isRecord(patch)
    ? Object.entries(patch).flatMap(([name, value]) => changesOf(value, [...at, name]))
    : [{ at, value: patch }];
}

/** A patch that changes one value. */
export const patchAt = (at: readonly string[], value: unknown): Record<string, unknown> => {
  const [first = "", ...rest] = at;
  return { [first]: rest.length > 0 ? patchAt(rest, value) : value };
};

/** A patch without one of its changes; parts that are empty then go too. */
export function withoutChange(patch: Record<string, unknown>, at: readonly string[]): Record<string, unknown> {
  const [first = "", ...rest] = at;
  const result = { ...patch };
  const inner = result[first];
  const left = rest.length > 0 && isRecord(inner) ? withoutChange(inner, rest) : undefined;
  if (left && Object.keys(left).length > 0) result[first] = left;
  else Reflect.deleteProperty(result, first);
  return result;
}

/** Where the marks were that are elsewhere under the assumptions, by check. */
export function movedMarks(stored: Pick<Recheck, "checks">, recheck: Pick<Recheck, "checks">): Map<string, number> {
  const before = new Map(stored.checks.map((c) => [c.id, c]));
  const moved = new Map<string, number>();
  for (const check of recheck.checks) {
    const was = before.get(check.id);
    if (was && was.multiples !== null && isElsewhere(was, check)) moved.set(check.id, was.multiples);
  }
  return moved;
}

const isElsewhere = (was: Check, is: Check): boolean =>
  was.verdict !== is.verdict || Math.abs((was.multiples ?? 0) - (is.multiples ?? 0)) > 0.05;

/** An assumption with another one: what both change is as in the later one. */
export const together = (one: Assumptions | undefined, patch: Record<string, unknown>): Assumptions => ({
  ...(one ?? NOTHING_ASSUMED),
  patch: merged(one?.patch ?? {}, patch) as Record<string, unknown>,
});
