import { expect, it } from "vitest";
import type { Sensitivity } from "../../shared/api/client";
import { effectsOf, greatest, lengthOf } from "./effects";

const value = (symbol: string, change: number) => ({
  quantity: symbol,
  direction: "X" as const,
  symbol,
  unit: "kN",
  before: 100,
  after: 100 * (1 + change),
  change,
});
const variant = (input: string, after: string, ...changes: number[]): Sensitivity => ({
  input,
  before: "",
  after,
  patch: {},
  values: changes.map((c, i) => value(`V${String(i)}`, c)),
  flips: [],
});

it("takes the value that moves most, whichever way", () => {
  expect(greatest(variant("a", "", 0.1, -0.3, 0.2))).toEqual({ change: -0.3, symbol: "V1 X" });
  expect(greatest(variant("a", ""))).toEqual({ change: 0, symbol: "" });
});

it("puts both sides of an input together, the input with the greatest effect first", () => {
  const effects = effectsOf([variant("a", "1", 0.1), variant("b", "1", 0.05), variant("b", "2", -0.4)]);
  expect(effects.map((e) => [e.input, e.sides.length, e.greatest])).toEqual([
    ["b", 2, 0.4],
    ["a", 1, 0.1],
  ]);
});

it("draws to the greatest effect", () => {
  expect([lengthOf(0.2, 0.4), lengthOf(-0.4, 0.4), lengthOf(1, 0.4), lengthOf(0, 0)]).toEqual([0.5, -1, 1, 0]);
});
