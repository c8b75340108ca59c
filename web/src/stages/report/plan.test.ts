import { expect, it } from "vitest";
import { ALL, moved, withAll } from "./plan";

it("lists the chosen sections first, and all others to choose", () => {
  const rows = withAll(["register", "scope"]);
  expect(rows.slice(0, 3).map((r) => [r.id, r.shown])).toEqual([
    ["register", true],
    ["scope", true],
    ["definitions", false],
  ]);
  expect(rows).toHaveLength(ALL.length);
});

it("moves a section a place, and not beyond the ends", () => {
  const rows = withAll(ALL);
  expect(
    moved(rows, 1, -1)
      .map((r) => r.id)
      .slice(0, 2),
  ).toEqual(["definitions", "scope"]);
  expect(moved(rows, 0, -1)).toBe(rows);
  expect(moved(rows, ALL.length - 1, 1)).toBe(rows);
});
