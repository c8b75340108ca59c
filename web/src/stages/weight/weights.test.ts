import { expect, test } from "vitest";
import { recheckOf, step } from "../../shared/testing";
import { check } from "../../sheet/testing";
import { GRAVITY, weightRows } from "./weights";

const theirs = (value: number, text: string) => ({ value, text, unit: "kN", source: { file: "", sheet: "", row: null, column: "", note: "" } });

test("weights and masses stand side by side by story, and what nobody has is left open", () => {
  const recheck = recheckOf(
    [check({ id: "w.L1", quantity: "w", direction: null, story: "L1", stage: "weight", theirs: theirs(1000, "1000") }), check({ id: "m.L1", quantity: "m", direction: null, story: "L1", stage: "weight", theirs: theirs(60, "60.0") })],
    [step({ id: "w", quantity: "w", direction: null, value: [980, 900] })],
  );
  const rows = weightRows(recheck, [{ name: "L2", z: 7, height: 3, centre: [0, 0], mass: 90, inertia: 1, corners: [], rigid: true }]);
  expect(rows.map((r) => [r.w, r.ownWeight])).toEqual([[1000, 980], [null, 900]]);
  expect(rows[0]?.theirMass).toBeCloseTo(60 * GRAVITY);
  expect(rows[0]?.ownMass).toBeNull();
  expect(rows[1]?.ownMass).toBeCloseTo(90 * GRAVITY);
});

test("weights that we took over from them are not ours", () => {
  const recheck = recheckOf([], [step({ id: "w", quantity: "w", direction: null, value: [980, 900], source: "adopted" })]);
  expect(weightRows(recheck, [])[0]?.ownWeight).toBeNull();
});
