import { expect, it } from "vitest";
import { check } from "../../sheet/testing";
import { asSeen, displacement, drawnPeriods, submittedPoints } from "./curves";

it("displacement of 1 g at 2 pi seconds is one g in mm", () => {
  expect(displacement(2 * Math.PI, 1)).toBeCloseTo(9806.65, 6);
});

it("each view draws the same point on its own axes", () => {
  expect(asSeen("acceleration", 1, 0.5)).toEqual([1, 0.5]);
  expect(asSeen("displacement", 1, 0.5)[1]).toBeCloseTo(124.2, 1);
  expect(asSeen("adrs", 1, 0.5)[1]).toBe(0.5);
});

it("the corners are drawn themselves", () => {
  const periods = drawnPeriods(10, [0.171, 0.856, 12]);
  expect(periods[0]).toBe(0);
  expect(periods).toContain(0.171);
  expect(periods).not.toContain(12);
  expect([...periods].sort((a, b) => a - b)).toEqual(periods);
});

it("points stand at the periods of their table", () => {
  const source = { file: "", sheet: "", row: null, column: "", note: "" };
  const points = submittedPoints(
    [check({ quantity: "S_a", point: 1, theirs: { value: 0.4, text: "", unit: "", source } })],
    [0, 0.2],
  );
  expect(points.map((p) => [p.T, p.S_a])).toEqual([[0.2, 0.4]]);
});
