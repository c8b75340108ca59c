import { describe, expect, it } from "vitest";
import type { Across, AcrossCell } from "../../shared/api/client";
import { cellOf, lineOf, shown, telling } from "./across";

const cell = (value: AcrossCell["value"], note = ""): AcrossCell => ({
  quantity: "V",
  symbol: "V",
  symbol_tex: "V",
  value,
  unit: "kN",
  step: "V.X",
  governed_by: null,
  clause: "",
  note,
});

describe("the side-by-side table", () => {
  it("takes the building's value where a quantity has no direction", () => {
    const cells = [
      { edition: "a", both: cell(1) },
      { edition: "b", X: cell(2), Y: cell(3) },
    ] as Across["rows"][number]["cells"];
    expect(cellOf(cells, "a", "Y")?.value).toBe(1);
    expect(cellOf(cells, "b", "Y")?.value).toBe(3);
    expect(cellOf(cells, "c", "X")).toBeNull();
  });

  it("tells a quantity that an edition has not from one that is open and from no limit", () => {
    expect(shown(null)).toBe("–");
    expect(shown(cell(null, "R is not given"))).toBe("missing input");
    expect(shown(cell(null, "no limit"))).toBe("no limit");
    expect(shown(cell(12345.6))).toBe("12 346");
    expect(shown(cell(0.05))).toBe("0.05");
    expect(shown(cell(4))).toBe("4");
    expect(shown(cell(1200))).toBe("1200");
    expect(shown(cell("D"))).toBe("D");
  });

  it("leaves out factors that change nothing", () => {
    const factor = (aspect: string, value: number) => ({ aspect, factor: value, governing: 1, other: value });
    const { apart, alike } = telling([factor("soil", 0.6), factor("minimum", 1), factor("importance", 1.004)]);
    expect(apart.map((f) => f.aspect)).toEqual(["soil"]);
    expect(alike).toBe(2);
  });

  it("has a line of its own for each of ten editions", () => {
    const lines = Array.from({ length: 10 }, (_, i) => `${lineOf(i).colour} ${lineOf(i).dash}`);
    expect(new Set(lines).size).toBe(10);
  });
});
