import { expect, it } from "vitest";
import type { Check } from "./api/client";
import { movedFrom } from "./before";

const check = (value: number | string | null) =>
  ({ id: "V.X", independent: value === null ? null : { value }, carried: null }) as unknown as Check;
const before = (value: number | string | null) => new Map([["V.X", check(value)]]);

it("knows what our value was, where it is another one", () => {
  expect(movedFrom(before(100), check(120))).toBe(100);
  expect(movedFrom(before("D"), check("C"))).toBe("D");
});

it("says nothing of what stayed, of what is new, and of what has no value", () => {
  expect(movedFrom(before(100), check(100.000001))).toBeUndefined();
  expect(movedFrom(before("D"), check("D"))).toBeUndefined();
  expect(movedFrom(new Map(), check(120))).toBeUndefined();
  expect(movedFrom(before(null), check(120))).toBeUndefined();
  expect(movedFrom(before(100), check(null))).toBeUndefined();
});
