import { describe, expect, it } from "vitest";
import type { Check, Recheck } from "../shared/api/client";
import { check } from "./testing";
import {
  bareStages,
  codesOf,
  countsOf,
  firstFilter,
  near,
  offset,
  passes,
  REACH,
  rowsOf,
  type SheetFilter,
} from "./layout";

const sheet = (checks: Check[]) => rowsOf({ checks });
const story = (name: string, changes: Partial<Check>) =>
  check({ id: `F.X.${name}`, quantity: "F", symbol: "F_x", story: name, ...changes });

describe("offset", () => {
  it("is linear up to three times the tolerance and logarithmic beyond", () => {
    expect(offset(0)).toBe(0);
    expect(offset(1)).toBe(1);
    expect(offset(-3)).toBe(-3);
    expect(offset(10)).toBeCloseTo(3 + 2 * Math.log(10 / 3), 12);
    expect(offset(1e9)).toBe(REACH);
    expect(offset(-1e9)).toBe(-REACH);
  });

  it("never turns back", () => {
    const at = [0.5, 1, 2.999, 3, 3.001, 7, 20, 99].map(offset);
    expect([...at].sort((a, b) => a - b)).toEqual(at);
  });
});

describe("rows", () => {
  it("show one line for the stories of a quantity, marked at the worst", () => {
    const rows = sheet([
      story("L1", { verdict: "differs", role: "inherited", multiples: 3 }),
      story("L2", { verdict: "differs", role: "inherited", multiples: -9 }),
      story("L3", { multiples: 0.2 }),
    ]);
    expect(rows.map((r) => [r.label, r.all.length])).toEqual([["F_x X L2", 3]]);
  });

  it("give a deviation that starts at a story a line of its own", () => {
    const rows = sheet([
      story("L1", {}),
      story("L2", { verdict: "differs", role: "origin", multiples: 40 }),
      story("L3", { verdict: "differs", role: "inherited", multiples: 90 }),
    ]);
    expect(rows.map((r) => r.label)).toEqual(["F_x X L2", "F_x X L3"]);
    expect(rows[0]?.all).toHaveLength(1);
  });

  it("name the load case where a quantity is stated for two", () => {
    const at = (name: string) =>
      story("L2", { id: `F.X.L2.${name}`, case: name, verdict: "differs", role: "origin", multiples: 40 });
    expect(sheet([at("Static X +e"), at("Static X -e")]).map((r) => r.label)).toEqual([
      "F_x X L2 Static X +e",
      "F_x X L2 Static X -e",
    ]);
  });

  it("name the quantity alone where every story agrees", () => {
    expect(sheet([story("L1", {}), story("L2", {})]).map((r) => r.label)).toEqual(["F_x X"]);
  });
});

describe("filter", () => {
  const [agreeing, gap] = sheet([
    check({}),
    check({ id: "gap_T.Y", direction: "Y", verdict: "gap", level: null, multiples: null }),
  ]);

  it("keeps what deviates, gaps included", () => {
    const filter = { which: "out", code: "", direction: "", level: "" } as const;
    expect([agreeing, gap].map((r) => r && passes(r, filter))).toEqual([false, true]);
  });

  it("keeps a direction and what has none", () => {
    const filter = { which: "all", code: "", direction: "X", level: "" } as const;
    expect([agreeing, gap].map((r) => r && passes(r, filter))).toEqual([true, false]);
  });
});

it("counts what starts here and what is inherited", () => {
  const counts = countsOf([
    check({ role: "origin", verdict: "breaches" }),
    check({ role: "inherited", verdict: "differs" }),
    check({ verdict: "gap" }),
    check({ verdict: "question" }),
    check({}),
  ]);
  expect(counts).toEqual({ here: 1, inherited: 1, questions: 1, gaps: 1, open: 0, agree: 1 });
});

it("filters by question and by code of the catalogue", () => {
  const rows = rowsOf({
    checks: [
      check({ id: "a", verdict: "question", slip: "S51" }),
      check({ id: "b", verdict: "differs", role: "origin", slip: "S54" }),
      check({ id: "c" }),
    ],
  });
  const all = { which: "all", code: "", direction: "", level: "" } as const;
  const ids = (filter: SheetFilter) => rows.filter((r) => passes(r, filter)).map((r) => r.check.id);
  expect(ids({ ...all, which: "questions" })).toEqual(["a"]);
  expect(ids({ ...all, code: "S54" })).toEqual(["b"]);
  expect(codesOf(rows)).toEqual(["S51", "S54"]);
  expect(firstFilter(rows).which).toBe("out");
  expect(firstFilter(rows.slice(2)).which).toBe("all");
});

it("names the stages that nothing was handed in for", () => {
  const theirs = { value: 1, text: "1", unit: "", source: { file: "", sheet: "", row: null, column: "", note: "" } };
  const checks = [
    check({ stage: "lateral", theirs }),
    check({ id: "gap_x", stage: "ground", verdict: "gap" }),
    check({ id: "d", stage: "drift", theirs }),
  ];
  const stages = { scaling: null, twist: { cases: [] } as unknown as Recheck["stages"]["twist"], drift: null };
  // the ends of a case state of twist though an edition has no class of it
  expect(bareStages({ checks, stages })).toEqual(["ground", "spectrum", "weight", "modes", "scaling"]);
});

it("draws the lines in sight, a screenful around them and the chosen one", () => {
  const rows = sheet(Array.from({ length: 100 }, (_, i) => check({ id: `c${String(i)}` })));
  const lines = rows.map((row, i) => ({ row, y: 20 * i }));
  const drawn = (top: number, height: number, chosen: string | null) =>
    near(lines, { top, height }, chosen).map((l) => l.row.check.id);
  expect(drawn(0, 100, null)).toEqual(Array.from({ length: 10 }, (_, i) => `c${String(i)}`));
  expect(drawn(1000, 100, "c3")).toHaveLength(15);
  expect(drawn(1000, 100, "c3")[0]).toBe("c3");
  // as long as the height is not known nothing is excluded
  expect(drawn(0, 0, null)).toHaveLength(100);
});
