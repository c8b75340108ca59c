import type { Reading, TableRead } from "../../shared/api/client";
import { strings } from "./strings";

export type Question = TableRead["problems"][number];
export type Choice = Question["choices"][number];

const MERGED = ["units", "cases", "stories"] as const;

/** What the reviewer has set, with more: what is set by name is added to, all else is replaced. */
export function withAnswer(given: Reading | null, sets: Choice["sets"]): Reading {
  const next: Record<string, unknown> = structuredClone(given ?? {});
  for (const [part, value] of Object.entries(sets)) {
    const merged = (MERGED as readonly string[]).includes(part);
    next[part] = merged ? { ...(next[part] as object | undefined), ...(value as object) } : value;
  }
  return next;
}

/** What the reviewer has set, with a row excluded, or taken back where it was. */
export function withRow(given: Reading | null, row: number, skipped: boolean): Reading {
  const were = given?.left_out ?? [];
  const left = were.filter((r) => r !== row);
  const includedRows = (given?.taken_in ?? []).filter((r) => r !== row);
  if (!skipped) return { ...given, left_out: [...left, row], taken_in: includedRows };
  // one that the reviewer excluded comes back by itself; one that does not look like values is accepted
  return { ...given, left_out: left, taken_in: left.length < were.length ? includedRows : [...includedRows, row] };
}

/** The same question at several rows is one: the rows are counted. */
export function asked(problems: readonly Question[]): { question: Question; rows: number[] }[] {
  const by = new Map<string, { question: Question; rows: number[] }>();
  for (const question of problems) {
    const key = `${question.message} ${question.row === null ? "" : String(question.column)}`;
    const group = by.get(key);
    if (group) group.rows.push(question.row ?? 0);
    else by.set(key, { question, rows: question.row === null ? [] : [question.row] });
  }
  return [...by.values()].sort((a, b) => Number(b.question.holds_up) - Number(a.question.holds_up));
}

/** Rows and columns that would not be read if a table were accepted now. */
export function openParts(problems: readonly Question[]): { rows: number; columns: number } {
  const of = (extent: Question["extent"], place: (q: Question) => number | null) =>
    new Set(problems.filter((p) => p.extent === extent).map(place)).size;
  return { rows: of("row", (q) => q.row), columns: of("column", (q) => q.column) };
}

/** Letters of a column, 0-based. */
export function letters(index: number): string {
  const letter = String.fromCharCode(65 + (index % 26));
  return index < 26 ? letter : letters(Math.floor(index / 26) - 1) + letter;
}

/** Where a question stands, in words. */
export function placeOf(question: Question, rows: readonly number[]): string {
  if (question.row === null) return "";
  const column = question.column === null ? "" : strings.column(letters(question.column));
  const first = (rows[0] ?? question.row) + 1;
  return strings.row(first, rows.length > 1 ? strings.andMoreRows(rows.length - 1) : "", column);
}
