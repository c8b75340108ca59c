import { describe, expect, it } from "vitest";
import { pairs } from "./curve";

describe("a pasted curve", () => {
  it("is read from tabs, semicolons or spaces, with a heading and decimal commas", () => {
    expect(pairs("T\tS_a\n0\t0,40\n0.2\t1.0\n")).toEqual({
      points: [
        [0, 0.4],
        [0.2, 1],
      ],
      problem: "",
    });
    expect(pairs("0;0.4\n1;0.3").points).toEqual([
      [0, 0.4],
      [1, 0.3],
    ]);
    expect(pairs("0 0.4\n1 0.3").points).toHaveLength(2);
  });

  it("says which line does not fit", () => {
    expect(pairs("0 0.4\n1 two").problem).toBe("line 2 does not have two numbers");
    expect(pairs("0 0.4\n0 0.3").problem).toBe("line 2: the periods have to increase");
    expect(pairs("0 0.4").problem).toBe("enter at least two points");
  });
});
