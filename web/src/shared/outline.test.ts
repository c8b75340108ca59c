import { expect, test } from "vitest";
import { cornersText, readCorners } from "./outline";

test("corners are written and read as points", () => {
  const corners: [number, number][] = [
    [-12, -10],
    [12, -10],
    [12, 0.5],
    [-12, 10],
  ];
  expect(cornersText(corners)).toBe("-12, -10; 12, -10; 12, 0.5; -12, 10");
  expect(readCorners(cornersText(corners))).toEqual(corners);
  expect(readCorners("0 0\n10 0\n10 5")).toEqual([
    [0, 0],
    [10, 0],
    [10, 5],
  ]);
  for (const wrong of ["", "0,0; 1,1", "0,0; 1,1; 2", "0,0; 1,1; 2,x"]) expect(readCorners(wrong), wrong).toBeNull();
});
