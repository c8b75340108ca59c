import type { Check, Recheck } from "../shared/api/client";
import { strings } from "./strings";

/** A stage of the recheck with the name of its page, where it has one. */
export interface SheetStage {
  id: string;
  page: string | undefined;
}

/** One line of the sheet: a check, or the story or point checks of one quantity that state the same. */
export interface SheetRow {
  /** the check that the line shows and selects */
  check: Check;
  /** all checks that the line represents */
  all: Check[];
  label: string;
  stage: string;
}

export interface SheetFilter {
  which: "all" | "out" | "questions";
  /** of the catalogue; empty for any */
  code: string;
  direction: "" | "X" | "Y";
  level: "" | "1" | "2" | "3";
}

const DEVIATING: Check["verdict"][] = ["differs", "breaches", "question", "gap"];

/** Lines as a reviewer looks at them: breaches, origins, what follows, questions, gaps. */
export const worstFirst = (rows: SheetRow[]): SheetRow[] => [...rows].sort((a, b) => weight(b.check) - weight(a.check));

export const deviates = (check: Check): boolean => DEVIATING.includes(check.verdict);

/** The further a check hangs out, the larger; origins before what they caused. */
function weight(check: Check): number {
  const rank = {
    breaches: 5e6,
    differs: check.role === "origin" ? 4e6 : 2e6,
    question: 1.5e6,
    gap: 1e6,
    open: 5e5,
    note: 1e5,
    agrees: 0,
  }[check.verdict];
  return rank + Math.min(Math.abs(check.multiples ?? 0), 1e5);
}

const worst = (checks: Check[]): Check => checks.reduce((a, b) => (weight(b) > weight(a) ? b : a));

/**
 * Lines of the sheet in the order of the checks.  Values by story or point share a line, marked at the worst of them;
 * each deviation that starts at a story or point of its own gets a line of its own.
 */
export function rowsOf(recheck: Pick<Recheck, "checks">): SheetRow[] {
  const groups = new Map<string, Check[]>();
  for (const check of recheck.checks) {
    const many = (check.story !== null || check.point !== null) && check.verdict !== "gap";
    const key = many ? `${check.quantity}.${check.direction ?? ""}.${check.case}` : check.id;
    const group = groups.get(key);
    if (group) group.push(check);
    else groups.set(key, [check]);
  }
  const rows: SheetRow[] = [];
  for (const all of groups.values()) {
    const starting = all.filter((c) => c.role === "origin");
    const rest = all.filter((c) => c.role !== "origin");
    for (const check of starting) rows.push(row(check, [check]));
    if (rest.length > 0) rows.push(row(worst(rest), rest));
  }
  const named = new Map<string, number>();
  for (const { label } of rows) named.set(label, (named.get(label) ?? 0) + 1);
  // the same quantity and place in two load cases
  return rows.map((r) =>
    (named.get(r.label) ?? 0) > 1 && r.check.case ? { ...r, label: `${r.label} ${r.check.case}` } : r,
  );
}

function row(check: Check, all: Check[]): SheetRow {
  const base = [check.symbol, check.direction].filter(Boolean).join(" ");
  const place =
    check.story ??
    (check.point === null ? null : check.mode === null ? strings.point(check.point + 1) : strings.mode(check.mode));
  const label = place === null ? check.label : all.length > 1 && !deviates(check) ? base : `${base} ${place}`;
  return { check, all, label, stage: check.stage };
}

export function passes(row: SheetRow, filter: SheetFilter): boolean {
  return (
    (filter.which !== "out" || row.all.some(deviates)) &&
    (filter.which !== "questions" || row.all.some((c) => c.verdict === "question")) &&
    (filter.code === "" || row.all.some((c) => c.slip === filter.code)) &&
    (filter.direction === "" || row.check.direction === null || row.check.direction === filter.direction) &&
    (filter.level === "" || String(row.check.level) === filter.level)
  );
}

/** Largest offset that the sheet shows, in its own units; see `offset`. */
export const REACH = 10;

/**
 * Offset of a deviation on the sheet, from its multiples of the tolerance: linear up to 3, logarithmic beyond, so that
 * 10 times is at 5.4 and 100 times at the edge.
 */
export function offset(multiples: number): number {
  const size = Math.abs(multiples);
  const far = size <= 3 ? size : 3 + 2 * Math.log(size / 3);
  return Math.sign(multiples) * Math.min(far, REACH);
}

/** The lines that are in sight or near it, and the chosen one: of thousands the others need not be there. */
export function near<T extends { y: number; row: SheetRow }>(
  lines: T[],
  sight: { top: number; height: number },
  chosen: string | null,
): T[] {
  if (sight.height === 0) return lines;
  const [from, to] = [sight.top - sight.height, sight.top + 2 * sight.height];
  return lines.filter(({ y, row }) => (y > from && y < to) || row.check.id === chosen);
}

export interface StageCounts {
  agree: number;
  here: number;
  inherited: number;
  questions: number;
  gaps: number;
  open: number;
}

/** What the sheet shows until the reviewer chooses: what is out of plumb, or all of it. */
export const firstFilter = (rows: SheetRow[]): SheetFilter => ({
  // a gap alone puts nothing out of plumb
  which: rows.some((r) => r.all.some((c) => deviates(c) && c.verdict !== "gap")) ? "out" : "all",
  code: "",
  direction: "",
  level: "",
});

/** Codes of the catalogue that the checks of lines have, in their order. */
export const codesOf = (rows: SheetRow[]): string[] =>
  [...new Set(rows.flatMap((r) => r.all.flatMap((c) => (c.slip ? [c.slip] : []))))].sort();

export function countsOf(checks: Check[]): StageCounts {
  const count = (test: (c: Check) => boolean) => checks.filter(test).length;
  return {
    here: count((c) => c.role === "origin"),
    inherited: count((c) => c.role === "inherited"),
    questions: count((c) => c.verdict === "question"),
    gaps: count((c) => c.verdict === "gap"),
    open: count((c) => c.verdict === "open"),
    agree: count((c) => c.verdict === "agrees"),
  };
}

/** Stages that a submission has values for sooner or later; the brief is the reviewer's own. */
const HANDED_IN = ["ground", "spectrum", "weight", "modes", "lateral", "scaling", "twist", "drift"];

/** Stages that nothing was submitted for: no value of theirs is in them. */
export const bareStages = (recheck: Pick<Recheck, "checks" | "stages">): string[] =>
  HANDED_IN.filter(
    (stage) =>
      !recheck.checks.some((c) => c.stage === stage && c.theirs !== null) &&
      !recheck.stages[stage as keyof Recheck["stages"]],
  );
