import type { Schemas } from "../../shared/api/client";

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
