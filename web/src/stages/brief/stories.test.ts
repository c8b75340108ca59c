import { expect, it } from "vitest";
import { pastedStories } from "./stories";

it("reads cells copied from a spreadsheet, top story first, headings left out", () => {
  const { stories, problems } = pastedStories("Story\tHeight\tWeight\nL2\t3.9\t5 600\nL1\t4,8\t6100.5\n");
  expect(problems).toEqual([]);
  expect(stories).toEqual([
    { name: "L1", height: 4.8, weight: 6100.5 },
    { name: "L2", height: 3.9, weight: 5600 },
  ]);
});

it("takes stories without weights", () => {
  expect(pastedStories("Ground\t4.2").stories).toEqual([{ name: "Ground", height: 4.2 }]);
});

it("names every line that cannot be read", () => {
  const { problems } = pastedStories("L1\t-3\t100\nL2\tx\t100\nL3\t3\t100\nL3\t3\t100");
  expect(problems.map((p) => p.slice(0, 6))).toEqual(["Line 1", "Line 2", "Line 4"]);
});
