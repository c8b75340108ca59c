import { expect, it } from "vitest";
import { columns, driftOf, peakOf } from "./trace";

it("is the movement of a floor against the one below, in mm", () => {
  const moved = { L1: [0, 0.002, -0.001], L2: [0, 0.005, -0.004] };
  expect(driftOf(moved, ["L1", "L2"], 0)).toEqual([0, 2, -1]);
  expect(driftOf(moved, ["L1", "L2"], 1).map((v) => Math.round(v * 1e6) / 1e6)).toEqual([0, 3, -3]);
  expect(driftOf(moved, ["L1", "L2"], 5)).toEqual([]);
});

it("has its peak to either side", () => {
  expect(peakOf([1, -4, 3])).toEqual({ index: 1, value: -4 });
  expect(peakOf([])).toBeNull();
});

it("keeps every peak when a long record is drawn on few columns", () => {
  const values = Array.from({ length: 10_000 }, (_, i) => (i === 5003 ? 9 : i === 77 ? -8 : Math.sin(i)));
  const drawn = columns(values, 200);
  expect(drawn).toHaveLength(200);
  expect(Math.max(...drawn.map((c) => c.most))).toBe(9);
  expect(Math.min(...drawn.map((c) => c.least))).toBe(-8);
  expect(columns([1, 2], 200)).toEqual([
    { from: 0, least: 1, most: 1 },
    { from: 1, least: 2, most: 2 },
  ]);
});
