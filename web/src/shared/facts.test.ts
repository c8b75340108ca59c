import { describe, expect, it } from "vitest";
import type { Fact } from "./api/client";
import { byDoubt, factsOf, factValue } from "./facts";

const fact = (id: string, changes: Partial<Fact> = {}): Fact => ({
  id,
  quantity: id,
  direction: null,
  story: null,
  case: null,
  value: true,
  source: "declared",
  contradicted_by: null,
  clause: "",
  used_by: [],
  symbol: id,
  meaning: id,
  unit: "",
  where: "",
  ...changes,
});

describe("facts", () => {
  it("what is contradicted comes first, then what is assumed", () => {
    const facts = [
      fact("declared"),
      fact("found", { source: "found" }),
      fact("assumed", { source: "assumed" }),
      fact("against", { source: "found", contradicted_by: { value: false, source: "declared" } }),
    ];
    expect(byDoubt(facts).map((f) => f.id)).toEqual(["against", "assumed", "found", "declared"]);
  });

  it("a check has the facts that name it", () => {
    const facts = [fact("T", { used_by: ["V.X", "F.X.L1"] }), fact("R", { used_by: ["V.X"] })];
    expect(factsOf(facts, "F.X.L1").map((f) => f.id)).toEqual(["T"]);
  });

  it("values read as words", () => {
    expect(factValue(true, null)).toBe("yes");
    expect(factValue(null, null)).toBe("not known");
    expect(factValue("in_plane", null)).toBe("in plane");
    expect(factValue([], null)).toBe("none");
    expect(factValue(["soft_story", "mass"], null)).toBe("soft story, mass");
    expect(factValue(0.58, null, "s")).toBe("0.58 s");
  });

  it("of values by story the one assessed, or their range", () => {
    expect(factValue([7776, 4233.6, 2755.2], 1, "kN")).toBe("4234 kN");
    expect(factValue([7776, 4233.6, 2755.2], null, "kN")).toBe("2755 to 7776 kN");
  });
});
