import { describe, expect, it } from "vitest";
import { pastedLoads } from "./loads";

const stories = [
  { name: "L1", height: 4, weight: 1000 },
  { name: "L2", height: 3, weight: 800 },
];

describe("pasted loads", () => {
  it("take the place of the weight of their story; a story named once holds for the lines below it", () => {
    const { stories: read, problems } = pastedLoads(
      "Story\tLoad\tKind\tAmount\tkPa\nL1\tslab\tdead\t900\n\tgoods\tstorage\t300\t7,5\n",
      stories,
    );
    expect(problems).toEqual([]);
    expect(read[0]).toMatchObject({
      weight: null,
      loads: [
        { name: "slab", kind: "dead", amount: 900 },
        { name: "goods", kind: "storage", amount: 300, intensity: 7.5 },
      ],
    });
    expect(read[1]).toEqual(stories[1]);
  });

  it("are refused as a whole where a line cannot be read", () => {
    const { stories: read, problems } = pastedLoads(
      "L1;slab;dead;900\nL9;slab;dead;900\nL2;slab;heavy;900\nL2;slab;dead;much",
      stories,
    );
    expect(problems).toHaveLength(3);
    expect(problems[0]).toBe("Line 2: there is no story L9");
    expect(problems[1]).toMatch(/heavy is none of dead, live/);
    expect(read[1]).toEqual(stories[1]);
  });

  it("say that nothing was there", () => {
    expect(pastedLoads("Story\tLoad\tKind\tAmount", stories).problems).toEqual(["The pasted text contains no load"]);
  });
});
