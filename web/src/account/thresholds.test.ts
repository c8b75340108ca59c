import { expect, test } from "vitest";
import { numbersOf, withNumber } from "./thresholds";

const BAND = { name: "period_ratio", value: [0.4, 2.5] };
const ONE = { name: "tolerance", value: [0.01] };

test("what is not set has its default", () => {
  expect(numbersOf({}, BAND)).toEqual([0.4, 2.5]);
  expect(numbersOf({ tolerance: 0.02 }, ONE)).toEqual([0.02]);
  expect(numbersOf({ period_ratio: [0.5, 2] }, BAND)).toEqual([0.5, 2]);
});

test("one end of a band is changed, and the other keeps its value", () => {
  expect(withNumber({}, BAND, 1, 3)).toEqual({ period_ratio: [0.4, 3] });
  expect(withNumber({ tolerance: 0.02 }, ONE, 0, 0.05)).toEqual({ tolerance: 0.05 });
});

test("a number that is cleared, or is the default again, is not kept", () => {
  expect(withNumber({ tolerance: 0.02 }, ONE, 0, null)).toEqual({});
  expect(withNumber({ period_ratio: [0.5, 2.5] }, BAND, 0, 0.4)).toEqual({});
});
