import { expect, it } from "vitest";
import { asked, letters, placeOf, withAnswer, withRow, type Question } from "./reading";
import { boxOfCell, columnOf, pageOf, regionLabel } from "./places";

const question = (message: string, row: number | null, holds_up = true): Question => ({
  row,
  column: row === null ? null : 27,
  message,
  remedy: "",
  holds_up,
  extent: holds_up ? "table" : "nothing",
  choices: [],
});

it("adds to what is set by name and replaces the rest", () => {
  const given = { units: { h: "m" }, columns: { h: 1 }, numbers: "point" as const };
  expect(withAnswer(given, { units: { w: "kN" }, columns: { w: 2 } })).toEqual({
    units: { h: "m", w: "kN" },
    columns: { w: 2 },
    numbers: "point",
  });
  expect(given.columns).toEqual({ h: 1 });
  expect(withAnswer(null, { case: "EX" })).toEqual({ case: "EX" });
});

it("leaves rows out and takes them back", () => {
  const out = withRow(null, 4, false);
  expect(out).toMatchObject({ left_out: [4], taken_in: [] });
  expect(withRow(out, 4, true)).toMatchObject({ left_out: [], taken_in: [] });
  expect(withRow(out, 9, true)).toMatchObject({ left_out: [4], taken_in: [9] });
});

it("asks the same question once, what holds up first", () => {
  const all = asked([
    question("odd", 3, false),
    question("missing", 1),
    question("missing", 2),
    question("case", null),
  ]);
  expect(all.map((a) => [a.question.message, a.rows])).toEqual([
    ["missing", [1, 2]],
    ["case", []],
    ["odd", [3]],
  ]);
  expect(all[0] && placeOf(all[0].question, all[0].rows)).toBe("Row 2 and 1 more, column AB");
  expect([0, 25, 26, 701, 702].map(letters)).toEqual(["A", "Z", "AA", "ZZ", "AAA"]);
});

it("names a part of a page whichever way it was dragged, and a pin where it was not", () => {
  expect(regionLabel(3, [100.4, 50, 20, 90])).toBe("page 3, region 20 50 100 90");
  expect(regionLabel(3, [100, 50, 102, 51])).toBe("page 3, pin 100 50");
  expect(pageOf("page 41, table 2")).toBe(41);
  expect(pageOf("Floors")).toBeNull();
});

it("finds a cell on its page, and the table where the cell is not known", () => {
  const table = { sheet: "page 1, table 1", box: [0, 0, 100, 50], cells: [[[0, 0, 50, 10], null]] };
  expect(boxOfCell(table, { row: 1, column: "A" })).toEqual([0, 0, 50, 10]);
  expect(boxOfCell(table, { row: 1, column: "B" })).toEqual([0, 0, 100, 50]);
  expect(boxOfCell(undefined, { row: 1, column: "A" })).toBeNull();
  expect(["A", "Z", "AA"].map(columnOf)).toEqual([0, 25, 26]);
});
