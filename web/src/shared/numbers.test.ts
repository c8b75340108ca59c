import { describe, expect, it } from "vitest";
import { alike, counted, figures, oursText, percent, theirsText, unitLabel } from "./numbers";

describe("figures", () => {
  it.each([
    [1.94, "1.940"],
    [0.0044882, "0.004488"],
    [4982.6, "4983"],
    [115388.6, "115 389"],
    [0, "0"],
    [-12.3456, "−12.35"],
  ])("%d", (value, text) => {
    expect(figures(value)).toBe(text);
  });
  it("leaves texts and flags readable", () => {
    expect(figures("D")).toBe("D");
    expect(figures(true)).toBe("yes");
  });
});

it("ours is written as theirs was, with at least three digits that mean something", () => {
  expect(alike(1.9400001, "1.68")).toBe("1.94");
  expect(alike(4982.6, "4983")).toBe("4983");
  expect(alike(0.92147, "1.02")).toBe("0.921");
  expect(alike(5579.97, "569.0")).toBe("5580.0");
  expect(alike("D", "C")).toBe("D");
});

it("percent has its sign, and gives up decimals as it grows", () => {
  expect(percent(-0.134)).toBe("−13.4 %");
  expect(percent(-0.00049)).toBe("0.0 %");
  expect(percent(1.5)).toBe("+150 %");
  expect(percent(99)).toBe("+99×");
});

it("units as people write them", () => {
  expect(unitLabel("kN*m")).toBe("kN m");
});

const source = { unit: "kN", theirs: { value: 444.82216, text: "100.0", unit: "kip" } };

it("theirs stands as it was written, or turned into our unit", () => {
  expect(theirsText({ unit: "kN", theirs: { value: 12400, text: "12400", unit: "kN" } })).toBe("12 400");
  expect(theirsText(source)).toBe("444.8");
  expect(theirsText({ unit: "", theirs: { value: "D", text: "D", unit: "" } })).toBe("D");
  expect(theirsText({ unit: "", theirs: null })).toBe("–");
});

it("ours takes its decimals from theirs only in the same unit", () => {
  expect(oursText(444.82216, source)).toBe("444.8");
  expect(oursText(5579.97, { unit: "kN", theirs: { value: 569, text: "569", unit: "kN" } })).toBe("5580");
});

it("a count takes its word", () => {
  expect([0, 1, 12].map((n) => counted(n, "floor"))).toEqual(["0 floors", "1 floor", "12 floors"]);
});
