import { expect, test } from "vitest";
import { sumOf } from "../../heightlog/data";
import { GRAVITY } from "../../shared/gravity";
import { recheckOf, step } from "../../review/testing";
import { check } from "../../sheet/testing";
import { weightTracks } from "./weights";

const theirs = (value: number, text: string) => ({
  value,
  text,
  unit: "kN",
  source: { file: "", sheet: "", row: null, column: "", note: "" },
});
const floor = (name: string, mass: number) => ({
  name,
  z: 7,
  height: 3,
  centre: [0, 0] as [number, number],
  mass,
  inertia: 1,
  corners: [],
  rigid: true,
});
const recheck = recheckOf(
  [
    check({ id: "w.L1", quantity: "w", direction: null, story: "L1", stage: "weight", theirs: theirs(1000, "1000") }),
    check({
      id: "m.L1",
      quantity: "m",
      direction: null,
      story: "L1",
      stage: "weight",
      theirs: theirs(60, "60.0"),
      verdict: "differs",
    }),
  ],
  [step({ id: "w", quantity: "w", direction: null, value: [980, 900] })],
);

test("weights and masses stand side by side by story, and what nobody has is left open", () => {
  const [w, m] = weightTracks(recheck, [floor("L2", 90)]);
  expect(w?.theirs).toEqual([1000, null]);
  expect(w?.ours).toEqual([980, 900]);
  expect(m?.theirs[0]).toBeCloseTo(588.399);
  expect(m?.texts).toEqual(["588.4", "–"]);
  expect(m?.ours[0]).toBeNull();
  expect(m?.ours[1]).toBeCloseTo(90 * GRAVITY);
  expect(m?.out).toEqual([true, false]);
});

test("mass × g is held against our static weight", () => {
  expect(weightTracks(recheck, [])[1]?.against?.values).toEqual([980, 900]);
});

test("sums are told only where every story is known", () => {
  const [w, m] = weightTracks(recheck, [floor("L1", 100), floor("L2", 90)]);
  expect(w && sumOf(w, "ours")).toBe(1880);
  expect(w && sumOf(w, "theirs")).toBeNull();
  expect(m && sumOf(m, "ours")).toBeCloseTo(190 * GRAVITY);
});

test("weights that we took over from them are not ours", () => {
  const adopted = recheckOf(
    [],
    [step({ id: "w", quantity: "w", direction: null, value: [980, 900], source: "adopted" })],
  );
  expect(weightTracks(adopted, []).map((t) => t.ours)).toEqual([
    [null, null],
    [null, null],
  ]);
});
