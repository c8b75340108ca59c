import { expect, test } from "vitest";
import { answersOf } from "./ProfileProposal";

const of = (proposed: object, stated: object = {}) =>
  answersOf({
    profile: { id: 1, name: "Carrow", kind: "stories", reading: proposed },
    reading: stated,
    columns: [{ name: "w", title: "seismic weight", required: false, units: ["kN"] }],
  });

test("what the table does not state is named", () => {
  expect(of({ units: { w: "kN" }, cases: { EX: "X" }, order: "top_down", numbers: "comma" })).toEqual([
    "seismic weight in kN",
    "EX is X",
    "top story first",
    "as in 1.234,5",
  ]);
});

test("what the table states itself is not", () => {
  expect(of({ units: { w: "kN" }, order: "top_down" }, { units: { w: "kN" }, order: "bottom_up" })).toEqual([]);
  expect(of({ units: { w: "-" } })).toEqual([]);
});
