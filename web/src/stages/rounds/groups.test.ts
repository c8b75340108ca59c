import { expect, it } from "vitest";
import type { ComparedValue, Difference } from "../../shared/api/client";
import { endsOf, firstGroup, gather, valuesOf } from "./groups";

const value = (label: string, moved: number | null, finding: number | null = null) =>
  ({ check: label, label, moved, finding, why: "still there", before: "1", after: "2" }) as ComparedValue;

it("gathers values of one quantity and direction, with how far they moved", () => {
  const groups = gather([value("F_x X L3", 0.2), value("F_x X L4", -0.1), value("F_x Y L3", null), value("W", 0.01)]);
  expect(groups.map((g) => [g.label, g.values.length, g.moved])).toEqual([
    ["F_x X", 2, [-0.1, 0.2]],
    ["F_x Y L3", 1, null],
    ["W", 1, [0.01, 0.01]],
  ]);
});

it("keeps values apart that different findings name", () => {
  expect(gather([value("V X", 0.1, 1), value("V X", 0.1, 2)])).toHaveLength(2);
});

it("tells what changed unasked from what may follow", () => {
  const follows = { ...value("V X", 0.3), why: "no finding names it; it may follow from a value" };
  const difference = { changed: [{ ...value("m L2", 0.004), why: "no finding requires it" }, follows] };
  expect(valuesOf(difference as unknown as Difference, "changed").map((v) => v.label)).toEqual(["m L2"]);
  expect(valuesOf(difference as unknown as Difference, "follows").map((v) => v.label)).toEqual(["V X"]);
});

it("begins with what is new", () => {
  const none = { settled: [], open: [], undecided: [], new: [], changed: [] };
  expect(firstGroup({ ...none, settled: [value("W", 0)], new: [value("V X", 1)] } as unknown as Difference)).toBe(
    "new",
  );
  expect(firstGroup({ ...none, settled: [value("W", 0)] } as unknown as Difference)).toBe("settled");
});

it("says where there is no value before or now", () => {
  const gone = { ...value("make-up of L5", null), before: "510 kN", after: null, was: "differs" as const, now: "" };
  expect(endsOf({ ...gone, why: "resolved by the numbers" })).toBe("510 kN → nothing out");
  expect(endsOf({ ...gone, why: "it cannot be decided" })).toBe("510 kN → not stated");
  const fresh = { ...value("axes X and Y", null), before: null, after: null, was: "", now: "differs" };
  expect(endsOf({ ...fresh, why: "it was no deviation" })).toBe("nothing out → out");
  expect(endsOf({ ...fresh, was: "differs", now: "", why: "resolved by the numbers" })).toBe("out → nothing out");
  // a value that is a gap now
  expect(endsOf({ ...gone, now: "gap", why: "it cannot be decided" })).toBe("510 kN → not stated");
});
