import { expect, test } from "vitest";
import { documentOf, readAs, withUnit, type Profile, type TableProfile } from "./profile";

const TABLE: TableProfile = {
  kind: "stories",
  heading: ["Level", "Height", "Load"],
  columns: { story: 0, h: 1 },
  units: { h: "m" },
};

test("a heading is read as one column, and a column from one heading", () => {
  expect(readAs(TABLE, 2, "w").columns).toEqual({ story: 0, h: 1, w: 2 });
  expect(readAs(TABLE, 2, "h")).toMatchObject({ columns: { story: 0, h: 2 }, units: {} });
});

test("a heading that is not used takes its unit with it", () => {
  expect(readAs(TABLE, 1, null)).toMatchObject({ columns: { story: 0 }, units: {} });
});

test("a unit is set, or left to the table", () => {
  expect(withUnit(TABLE, "h", "mm").units).toEqual({ h: "mm" });
  expect(withUnit(TABLE, "h", null).units).toEqual({});
});

test("what is exported is the name and the tables", () => {
  const profile = { id: 3, name: "Carrow", tables: [TABLE], own: true } as unknown as Profile;
  expect(documentOf(profile)).toEqual({ name: "Carrow", tables: [TABLE] });
});
