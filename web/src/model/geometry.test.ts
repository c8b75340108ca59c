import { expect, test } from "vitest";
import type { ModelFloor } from "./answers";
import { drawnFrame, drawnLines, endsOf, movedByFloors, rigid, scaleOf } from "./geometry";
import { groupColours } from "./colours";

const floor: ModelFloor = {
  name: "L1",
  z: 4,
  height: 4,
  centre: [2, 1],
  mass: 10,
  inertia: 40,
  corners: [
    [0, 0],
    [4, 0],
    [4, 2],
    [0, 2],
  ],
  rigid: true,
};

test("a point moves with its floor: translation, and turning about the centre", () => {
  expect(rigid([5, 1], [2, 1], [0.1, 0, 0])).toEqual([0.1, 0]);
  const [x, y] = rigid([5, 1], [2, 1], [0, 0, 0.01]);
  expect(x).toBeCloseTo(0);
  expect(y).toBeCloseTo(0.03);
});

test("a lateral line is drawn along its angle about its place", () => {
  const [a, b] = endsOf({ at: [3, 5], angle: 90 });
  expect(a[0]).toBeCloseTo(3);
  expect(a[1]).toBeCloseTo(3);
  expect(b[1]).toBeCloseTo(7);
});

test("lines become upright panels between floors, held at the base", () => {
  const drawn = drawnLines([{ story: 0, at: [2, 0], angle: 0, stiffness: 100, name: "" }], [floor]);
  expect(drawn.points.map((p) => p[2])).toEqual([0, 0, 4, 4]);
  expect(drawn.supports).toEqual([0, 1]);
  expect(drawn.segments).toHaveLength(4);
  const moved = movedByFloors(drawn, [floor], [[0.5, 0, 0]]);
  expect(moved.map((m) => m[0])).toEqual([0, 0, 0.5, 0.5]);
});

test("a frame is drawn in its present state; members of nodes that are not there are excluded", () => {
  const drawn = drawnFrame({
    nodes: [
      { id: "a", at: [0, 0, 0] },
      { id: "b", at: [0, 0, 3] },
    ],
    materials: [],
    sections: [],
    supports: [{ node: "a", fixed: ["ux"] }],
    members: [
      { id: "m", i: "a", j: "b", section: "1", material: "1", group: "columns" },
      { id: "n", i: "a", j: "z", section: "1", material: "1" },
    ],
  });
  expect(drawn.segments).toEqual([{ id: "m", a: 0, b: 1, group: "columns" }]);
  expect(drawn.supports).toEqual([0]);
});

test("the greatest movement shows as a twelfth of the building's size", () => {
  expect(
    scaleOf(
      [
        [0, 0, 0],
        [0, 0, 24],
      ],
      [
        [0, 0, 0],
        [0.01, 0, 0],
      ],
    ),
  ).toBeCloseTo(200);
});

test("groups that nobody knows get colours of their own", () => {
  const colours = groupColours(["columns", "outriggers", "trusses"]);
  expect(colours["columns"]).toBe("ink");
  expect(colours["outriggers"]).not.toBe(colours["trusses"]);
});
