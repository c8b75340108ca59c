import { describe, expect, it } from "vitest";
import type { Brief } from "../shared/api/client";
import { compareWith, give, given } from "./places";

const brief = {
  edition: "asce7-16",
  site: { S_S: 1.2 },
  comparisons: { ubc97: { site: { zone: "3" } } },
} as unknown as Brief;
const site = (name: string) => ({ name, part: "site" as const });
const system = (name: string) => ({ name, part: "system" as const });

describe("places of values in a brief", () => {
  it("reads the governing edition from the brief itself and others from their own part", () => {
    expect(given(brief, "asce7-16", site("S_S"), null)).toBe(1.2);
    expect(given(brief, "ubc97", site("zone"), null)).toBe("3");
    expect(given(brief, "en1998-1", site("a_gR"), null)).toBeUndefined();
  });

  it("writes where it reads, and leaves the rest as it was", () => {
    const copy = structuredClone(brief);
    give(copy, "ubc97", system("R"), "X", 5.5);
    give(copy, "asce7-16", system("R"), "Y", 8);
    give(copy, "en1998-1", { name: "structure_type", part: "brief" }, null, "brittle");
    expect(given(copy, "ubc97", system("R"), "X")).toBe(5.5);
    expect(given(copy, "ubc97", site("zone"), null)).toBe("3");
    expect(given(copy, "asce7-16", system("R"), "Y")).toBe(8);
    expect(given(copy, "asce7-16", system("R"), "X")).toBeUndefined();
    expect(given(copy, "en1998-1", { name: "structure_type", part: "brief" }, null)).toBe("brittle");
  });

  it("forgets what was given for an edition that is compared no more", () => {
    const copy = structuredClone(brief);
    compareWith(copy, ["en1998-1"]);
    expect(copy.comparison_editions).toEqual(["en1998-1"]);
    expect(copy.comparisons).toEqual({});
  });
});
