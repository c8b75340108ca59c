import { expect, it } from "vitest";
import { greatest, matrix, worstOf, type CaseMoved } from "./caseGrid";

const moved = (name: string, changes: Partial<CaseMoved> = {}): CaseMoved => ({
  case: name,
  kind: "static",
  direction: "X",
  eccentricity: 0.05,
  drift: [],
  displacement: [],
  drift_own: [],
  displacement_own: [],
  greatest: [],
  mean: [],
  ratio: [1.1, 1.3],
  ratio_own: null,
  tiny: [false, false],
  classes: ["regular", "torsional"],
  worst: "L2",
  ...changes,
});

it("has a field for either side of both directions, and others only where a case is in them", () => {
  const fields = matrix([
    moved("a"),
    moved("b", { direction: "Y", eccentricity: -0.05 }),
    moved("c", { eccentricity: 0 }),
  ]);
  expect(fields.map((f) => [f.direction, f.side, f.cases.map((c) => c.case)])).toEqual([
    ["X", "+", ["a"]],
    ["X", "-", []],
    ["X", "0", ["c"]],
    ["Y", "+", []],
    ["Y", "-", ["b"]],
  ]);
});

it("passes over stories whose drifts are too small to say anything", () => {
  expect(greatest(moved("a"))).toEqual({ ratio: 1.3, story: 1, word: "torsional" });
  expect(greatest(moved("a", { tiny: [false, true] }))).toEqual({ ratio: 1.1, story: 0, word: "regular" });
  expect(greatest(moved("a", { ratio: [null, null] }))).toBeNull();
});

it("takes the case of a field that turns the most", () => {
  expect(worstOf([moved("a"), moved("b", { ratio: [1.5, 1.2] })])?.case).toBe("b");
  expect(worstOf([])).toBeUndefined();
});
