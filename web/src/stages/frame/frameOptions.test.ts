import { expect, test } from "vitest";
import type { Frame } from "../../shared/api/client";
import { factorOf, groupsOf, withFactor } from "./frameOptions";

const frame = (factors: Frame["stiffness_factors"] = {}) =>
  ({
    members: [
      { id: "1", group: "walls" },
      { id: "2", group: "beams" },
      { id: "3", group: "walls" },
      { id: "4", group: "" },
    ],
    stiffness_factors: factors,
  }) as unknown as Frame;

test("groups with their members; members without a group are in none", () => {
  expect(groupsOf(frame())).toEqual([
    { name: "beams", count: 1 },
    { name: "walls", count: 2 },
  ]);
});

test("a factor is 1 until it is given", () => {
  expect(factorOf(frame(), "walls", "Iy")).toBe(1);
  expect(factorOf(frame({ walls: { A: 1, Iy: 0.5, Iz: 0.5, J: 1 } }), "walls", "Iy")).toBe(0.5);
});

test("one factor changes and the others of its group and of other groups stay", () => {
  const before = frame({ walls: { A: 1, Iy: 0.5, Iz: 0.4, J: 1 }, beams: { A: 1, Iy: 0.35, Iz: 1, J: 1 } });
  expect(withFactor(before, "walls", "Iy", 0.7)).toEqual({
    walls: { A: 1, Iy: 0.7, Iz: 0.4, J: 1 },
    beams: { A: 1, Iy: 0.35, Iz: 1, J: 1 },
  });
});

test("a group whose factors are all 1 is left out", () => {
  expect(withFactor(frame({ beams: { A: 1, Iy: 0.35, Iz: 1, J: 1 } }), "beams", "Iy", 1)).toEqual({});
});
