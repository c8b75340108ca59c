import { expect, it } from "vitest";
import { recheckOf, side } from "../../review/testing";
import { check } from "../../sheet/testing";
import { displacementWords } from "./DriftPage";

type Drifts = Parameters<typeof displacementWords>[1];

const drifts = (theirs: number | null, ours: number | null) =>
  ({ cases: [{ displacement: [0.01, theirs], displacement_own: [0.01, ours] }] }) as unknown as Drifts;
const shear = check({
  id: "V.X",
  theirs: { value: 4893, text: "4893", unit: "kN", source: { file: "", sheet: "", row: null, column: "", note: "" } },
  independent: side(7046, -0.306, -30.6),
});

it("explains displacements that differ by the base shears behind them", () => {
  // 4893/7046 = 0.6944
  const words = displacementWords(recheckOf([shear]), drifts(0.056, 0.08), "X");
  expect(words).toContain("submitted over ours up to 0.700");
  expect(words).toContain("The submitted base shear is 0.694 times ours.");
});

it("says nothing where both agree, or one of them is missing", () => {
  expect(displacementWords(recheckOf([shear]), drifts(0.0801, 0.08), "X")).toBe("");
  expect(displacementWords(recheckOf([shear]), drifts(null, 0.08), "X")).toBe("");
});
