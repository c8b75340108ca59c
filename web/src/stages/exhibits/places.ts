import type { Schemas, TableRead } from "../../shared/api/client";
import type { Question } from "./reading";

/** left, top, right, bottom on a page, pt */
export type Box = [number, number, number, number];

const LEAST = 8;

/** The label of a part of a page that was dragged over, or of a pin where nothing was dragged. */
export function regionLabel(page: number, [x1, y1, x2, y2]: Box): string {
  const whole = (v: number) => String(Math.max(0, Math.round(v)));
  if (Math.abs(x2 - x1) < LEAST || Math.abs(y2 - y1) < LEAST) {
    return `page ${String(page)}, pin ${whole(x1)} ${whole(y1)}`;
  }
  const box = [Math.min(x1, x2), Math.min(y1, y2), Math.max(x1, x2), Math.max(y1, y2)];
  return `page ${String(page)}, region ${box.map(whole).join(" ")}`;
}

/** A part that was dragged over as shares of the page, left before right and top before bottom. */
export function shares([x1, y1, x2, y2]: Box, width: number, height: number): Box {
  const part = (v: number, of: number) => Math.min(1, Math.max(0, v / of));
  return [
    part(Math.min(x1, x2), width),
    part(Math.min(y1, y2), height),
    part(Math.max(x1, x2), width),
    part(Math.max(y1, y2), height),
  ];
}

/** The page that a table is on, by its label; null where its file has no pages. */
export function pageOf(sheet: string): number | null {
  const match = /^page (\d+),/.exec(sheet);
  return match ? Number(match[1]) : null;
}

/** 0-based number of a column by its letters. */
export function columnOf(letters: string): number {
  return Array.from(letters).reduce((n, letter) => 26 * n + letter.charCodeAt(0) - 64, 0) - 1;
}

/** Where a cell is on its page, its row from 1; the table's box where the cell itself is not known. */
export function boxOfCell(table: Schemas["PageTable"] | undefined, cell: { row: number; column: string }): Box | null {
  if (!table) return null;
  const box = table.cells[cell.row - 1]?.[columnOf(cell.column)] as Box | null | undefined;
  return box ?? (table.box as Box);
}

/** A cell of a table as it is read, from 0. */
export interface CellPlace {
  row: number;
  column: number;
}

const AROUND = 1;
const MOST_ROWS = 6;
const MOST_COLUMNS = 9;

/** What is shown with a question: the headings, the rows that it concerns with one on each side, and what it marks. */
export function cellsOf(
  table: Pick<TableRead, "rows" | "reading">,
  question: Question,
  rows: readonly number[],
): { rows: number[]; columns: number[]; marked: CellPlace[] } {
  const { header_row: header } = table.reading;
  const last = table.rows.length - 1;
  const width = Math.max(0, ...table.rows.map((r) => r.length));
  const from = header ?? -1;
  const named = rows.length > 0 ? rows : question.row === null ? [] : [question.row];
  // a question about a heading is one about its column
  const asked = named.filter((row) => row !== header);
  const near = new Set<number>(header === null || header === undefined ? [] : [header]);
  if (asked.length === 0) for (let r = from + 1; r <= Math.min(from + 3, last); r++) near.add(r);
  for (const row of asked.slice(0, 3))
    for (let r = Math.max(0, row - AROUND); r <= Math.min(row + AROUND, last); r++) near.add(r);
  const shown = [...near].sort((a, b) => a - b).slice(0, MOST_ROWS);
  const at = question.column;
  const first = at === null ? 0 : Math.max(0, Math.min(at - MOST_COLUMNS + 2, width - MOST_COLUMNS));
  const columns = Array.from({ length: Math.min(MOST_COLUMNS, width - first) }, (_, i) => first + i);
  const marked =
    at === null
      ? asked.flatMap((row) => columns.map((column) => ({ row, column })))
      : (asked.length > 0 ? asked : shown).map((row) => ({ row, column: at }));
  return { rows: shown, columns, marked: marked.filter((c) => shown.includes(c.row)) };
}

/** The box around cells on their page, with a margin in pt; null where none of them has a place. */
export function boxOf(
  table: Schemas["PageTable"],
  [down = 0, right = 0]: readonly number[],
  cells: readonly CellPlace[],
  margin = 0,
): Box | null {
  const boxes = cells.flatMap((c) => {
    const box = table.cells[c.row + down]?.[c.column + right] as Box | null | undefined;
    return box ? [box] : [];
  });
  if (boxes.length === 0) return null;
  const edge = (side: 0 | 1 | 2 | 3, of: (...values: number[]) => number) => of(...boxes.map((b) => b[side]));
  return [
    edge(0, Math.min) - margin,
    edge(1, Math.min) - margin,
    edge(2, Math.max) + margin,
    edge(3, Math.max) + margin,
  ];
}

/** Pixels per pt with which a box fits; text is never larger than twice its size on the page. */
export function fitted([left, top, right, bottom]: Box, width: number, height: number): number {
  return Math.min(2, width / Math.max(1, right - left), height / Math.max(1, bottom - top));
}
