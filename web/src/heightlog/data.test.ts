import { expect, it } from "vitest";
import type { Recheck } from "../shared/api/client";
import { check } from "../sheet/testing";
import { asText, axisMarks, levelsOf, namedFloors, trackOf, asCell, withBefore } from "./data";

const theirs = (value: number) => ({
  value,
  text: String(value),
  unit: "kN",
  source: { file: "", sheet: "", row: null, column: "", note: "" },
});
const recheck = {
  stories: ["L1", "L2"],
  checks: [
    check({ id: "F.X.L1", quantity: "F", story: "L1", theirs: theirs(40) }),
    check({ id: "F.X.L2", quantity: "F", story: "L2", theirs: theirs(90), verdict: "differs", role: "origin" }),
    check({ id: "F.Y.L1", quantity: "F", story: "L1", direction: "Y", theirs: theirs(7) }),
  ],
  values: [
    { id: "h", value: [4.8, 3.9] },
    { id: "F.X", value: [40.1, 60] },
  ],
} as unknown as Recheck;

it("takes the values of a direction story by story, and marks what is out", () => {
  const track = trackOf(recheck, "F", "X");
  expect(track.theirs).toEqual([40, 90]);
  expect(track.ours).toEqual([40.1, 60]);
  expect(track.out).toEqual([false, true]);
});

it("has nothing to show where a side has no values", () => {
  expect(trackOf(recheck, "w", "X")).toMatchObject({ theirs: [null, null], ours: [null, null], out: [false, false] });
});

it("levels are the running sum of the story heights", () => {
  expect(levelsOf(recheck).map((l) => Math.round(l * 10) / 10)).toEqual([0, 4.8, 8.7]);
});

it.each([
  [90, [50]],
  [1200, [500, 1000]],
  [6.1, [2.5, 5]],
  [0, []],
])("round marks up to %d", (most, marks) => {
  expect(axisMarks(most)).toEqual(marks);
});

it("copies as a table, top story first", () => {
  const lines = asText(recheck, [trackOf(recheck, "F", "X")], "story, direction X").split("\n");
  expect(lines[0]).toBe("story, direction X\tlevel (m)\tforce theirs (kN)\tforce ours (kN)");
  expect(lines[1]?.split("\t")[0]).toBe("L2");
  expect(lines[2]).toBe("L1\t4.8\t40\t40.1");
});

it("names as many floors as have room, from the top down, and the one that is pointed at", () => {
  const floors = Array.from({ length: 10 }, (_, i) => 100 - 5 * i);
  expect([...namedFloors(floors, null)].sort((a, b) => a - b)).toEqual([0, 3, 6, 9]);
  expect([...namedFloors(floors, 5)].sort((a, b) => a - b)).toEqual([2, 5, 9]);
  expect(namedFloors([80, 40, 0], null).size).toBe(3);
});

it("writes names that begin as formulas do as text", () => {
  expect(["=cmd()", "+3.60", "-1", "@x", "-basement", "L2"].map(asCell)).toEqual([
    "'=cmd()",
    "+3.60",
    "-1",
    "'@x",
    "'-basement",
    "L2",
  ]);
});

it("shows where our values were before an assumption, at the stories where they are others now", () => {
  const ours = (value: number) => ({ value, deviation: 0, multiples: 0, tolerance: 1, agrees: true });
  const now = [check({ id: "F.X.L1", independent: ours(50) }), check({ id: "F.X.L2", independent: ours(60) })];
  const track = { ...trackOf(recheck, "F", "X"), checks: now };
  const was = new Map([
    ["F.X.L1", check({ id: "F.X.L1", independent: ours(40) })],
    ["F.X.L2", check({ id: "F.X.L2", independent: ours(60) })],
  ]);
  // ours is drawn at 40.1 for a check of 50 that was 40, as in another unit: 40.1 x 40 / 50
  expect(withBefore(track, was).before?.[0]).toBeCloseTo(32.08);
  expect(withBefore(track, was).before?.[1]).toBeNull();
  expect(withBefore(track, new Map()).before).toBeUndefined();
});
