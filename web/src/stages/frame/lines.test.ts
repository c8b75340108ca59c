import { expect, test } from "vitest";
import { baysText, readBays } from "./grid";
import { centreOfStiffness, copiedToAll, linesOf, pastedLines } from "./lines";

const line = (story: number, x: number, y: number, angle: number, stiffness: number) => ({
  story,
  at: [x, y],
  angle,
  stiffness,
  name: "",
});

test("the centre of stiffness lies where the stiffer lines are", () => {
  // along X at y = 0 and 10 with 3 : 1, along Y at x = 0 and 8 with 1 : 1
  const found = centreOfStiffness([
    line(0, 0, 0, 0, 300),
    line(0, 0, 10, 0, 100),
    line(0, 0, 0, 90, 50),
    line(0, 8, 0, 90, 50),
  ]);
  expect(found?.[0]).toBeCloseTo(4);
  expect(found?.[1]).toBeCloseTo(2.5);
});

test("turning the lines turns their centre with them", () => {
  const turn = (p: readonly [number, number], a: number): [number, number] => [
    p[0] * Math.cos(a) - p[1] * Math.sin(a),
    p[0] * Math.sin(a) + p[1] * Math.cos(a),
  ];
  const lines = [line(0, 1, 0, 0, 300), line(0, 2, 10, 20, 100), line(0, 0, 3, 90, 50), line(0, 8, 0, 75, 80)];
  const before = centreOfStiffness(lines);
  const after = centreOfStiffness(
    lines.map((l) => ({ ...l, at: turn([l.at[0] ?? 0, l.at[1] ?? 0], 0.7), angle: l.angle + (0.7 * 180) / Math.PI })),
  );
  const expected = turn(before ?? [NaN, NaN], 0.7);
  expect(after?.[0]).toBeCloseTo(expected[0]);
  expect(after?.[1]).toBeCloseTo(expected[1]);
});

test("without lines both ways there is no centre", () => {
  expect(centreOfStiffness([])).toBeNull();
  expect(centreOfStiffness([line(0, 0, 0, 0, 300), line(0, 0, 5, 0, 300)])).toBeNull();
});

test("a story's lines are copied to all the others", () => {
  const all = copiedToAll([line(0, 1, 1, 0, 10), line(1, 9, 9, 0, 99)], 0, 3);
  expect(all.map((l) => [l.story, l.stiffness])).toEqual([
    [0, 10],
    [1, 10],
    [2, 10],
  ]);
  expect(linesOf(all, 2)).toEqual([{ line: all[2], index: 2 }]);
});

test("pasted lines are read by story; every bad row is named and nothing is taken", () => {
  const good = pastedLines("Story\tx\ty\tangle\tstiffness\tname\nL1\t0\t5\t0\t85000\twall A\nL2\t0\t5,5\t90\t8e4", [
    "L1",
    "L2",
  ]);
  expect(good.problems).toEqual([]);
  expect(good.lines[1]).toEqual({ story: 1, at: [0, 5.5], angle: 90, stiffness: 80000, name: "" });
  const bad = pastedLines("L1\t0\t5\t0\t-3\nL9\t0\t0\t0\t1\nL1\tzero\t0\t0\t1", ["L1"]);
  expect(bad.problems).toHaveLength(3);
  expect(bad.problems[1]).toContain("L9");
});

test("bays are written and read with their counts", () => {
  expect(baysText([6, 6, 6, 8])).toBe("3x6 8");
  expect(readBays("3x6 8")).toEqual([6, 6, 6, 8]);
  expect(readBays(" 7,5 ")).toEqual([7.5]);
  for (const wrong of ["", "six", "0", "3x", "101x6", "-4"]) expect(readBays(wrong), wrong).toBeNull();
});
