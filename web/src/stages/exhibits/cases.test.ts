import { expect, it } from "vitest";
import type { LoadCase } from "../../shared/api/client";
import { check } from "../../sheet/testing";
import { flips, sideWritten, typedSide, unstated } from "./cases";

const role = (changes: Partial<LoadCase>): LoadCase => ({ id: 1, name: "EX", ...changes }) as LoadCase;

it.each([
  [0.05, "+5 %"],
  [-0.05, "−5 %"],
  [0.075, "+7.5 %"],
  [0, "0"],
  [null, ""],
])("writes the side %s as %j and reads it again", (value, text) => {
  expect(sideWritten(value)).toBe(text);
  expect(typedSide(text)).toBe(value);
});

it("reads sides as people type them, and says what it cannot read", () => {
  expect([typedSide("-5"), typedSide("+ 10 %"), typedSide("2,5"), typedSide(" ")]).toEqual([-0.05, 0.1, 0.025, null]);
  expect([typedSide("left"), typedSide("500")]).toEqual([undefined, undefined]);
});

it("knows what matters for the kind of a case", () => {
  expect(unstated(role({}))).toEqual(["kind"]);
  expect(unstated(role({ kind: "gravity" }))).toEqual([]);
  expect(unstated(role({ kind: "static", direction: "X", eccentricity: 0.05, level: "reduced" }))).toEqual([]);
  expect(unstated(role({ kind: "modal", direction: "X", eccentricity: 0 }))).toEqual(["scaling", "results"]);
});

it("tells the verdicts that a correction changes, and deviations that come with it", () => {
  const before = [check({ id: "a", verdict: "agrees" }), check({ id: "b", verdict: "gap" })];
  const after = [
    check({ id: "a", verdict: "differs" }),
    check({ id: "b", verdict: "gap" }),
    check({ id: "c", verdict: "question" }),
    check({ id: "d", verdict: "agrees" }),
  ];
  expect(flips(before, after).map((c) => c.id)).toEqual(["a", "c"]);
});
