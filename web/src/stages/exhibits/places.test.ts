import { expect, test } from "vitest";
import type { TableRead } from "../../shared/api/client";
import { boxOf, cellsOf, fitted } from "./places";
import type { Question } from "./reading";

const TABLE = {
  rows: Array.from({ length: 8 }, (_, r) => ["a", "b", "c"].map((t) => t + String(r))),
  reading: { header_row: 1 },
} as unknown as TableRead;
const at = (row: number | null, column: number | null) => ({ row, column }) as Question;
const PAGE = {
  sheet: "page 1, table 1",
  box: [0, 0, 100, 50],
  cells: [
    [
      [10, 10, 20, 18],
      [30, 10, 44, 18],
    ],
    [[10, 20, 22, 28], null],
  ],
};

test("a question about a cell shows the headings and its row between its neighbours", () => {
  const shown = cellsOf(TABLE, at(5, 2), []);
  expect(shown.rows).toEqual([1, 4, 5, 6]);
  expect(shown.columns).toEqual([0, 1, 2]);
  expect(shown.marked).toEqual([{ row: 5, column: 2 }]);
});

test.each([null, 1])("a question about a column or its heading shows its first values, and marks it", (row) => {
  const shown = cellsOf(TABLE, at(row, 1), []);
  expect(shown.rows).toEqual([1, 2, 3, 4]);
  expect(shown.marked.map((c) => c.column)).toEqual([1, 1, 1, 1]);
});

test("a question about a table without headings shows its first rows and marks none", () => {
  const shown = cellsOf({ ...TABLE, reading: { header_row: null } }, at(null, null), []);
  expect(shown.rows).toEqual([0, 1, 2]);
  expect(shown.marked).toEqual([]);
});

test("the columns of a wide table are those around the one in question", () => {
  const wide = { ...TABLE, rows: [Array.from({ length: 30 }, String)], reading: { header_row: 0 } } as TableRead;
  expect(cellsOf(wide, at(0, 20), []).columns).toEqual([13, 14, 15, 16, 17, 18, 19, 20, 21]);
  expect(cellsOf(wide, at(0, 29), []).columns.at(-1)).toBe(29);
});

test("a box around cells has a margin, and cells without a place do not count", () => {
  const cells = [0, 1].flatMap((row) => [0, 1].map((column) => ({ row, column })));
  expect(boxOf(PAGE, [0, 0], cells, 2)).toEqual([8, 8, 46, 30]);
  expect(boxOf(PAGE, [0, 0], [{ row: 1, column: 1 }])).toBeNull();
  expect(boxOf(PAGE, [1, 0], [{ row: 0, column: 0 }])).toEqual([10, 20, 22, 28]);
});

test("a crop is as large as fits and at most twice as large as on the page", () => {
  expect(fitted([0, 0, 100, 10], 50, 50)).toBe(0.5);
  expect(fitted([0, 0, 10, 10], 500, 500)).toBe(2);
});
