import { screen, within } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Across } from "../../shared/api/client";
import { show } from "../../review/testing";
import { ShearRatios } from "./ShearRatios";

const factor = (aspect: string, value: number) => ({ aspect, factor: value, governing: 1, other: value });
const ACROSS = {
  governing: "asce7-16",
  shear_ratios: [
    {
      edition: "ubc97",
      direction: "X",
      ratio: 0.675,
      period: 1.31,
      factors: [factor("soil", 0.62), factor("hazard", 1.25), factor("minimum", 1), factor("period", 1)],
    },
    { edition: "ubc97", direction: "Y", ratio: 0.5, period: 1.2, factors: [factor("reduction", 0.5)] },
  ],
} as unknown as Across;
const titles = (id: string) => ({ "asce7-16": "ASCE 7-16", ubc97: "UBC 1997" })[id] ?? id;

it("takes the ratio of the base shears apart, the direction asked for only", () => {
  show(<ShearRatios across={ACROSS} direction="X" titleOf={titles} />);
  const table = screen.getByRole("table");
  expect(within(table).getByText("V × 0.675")).toBeVisible();
  expect(within(table).getAllByRole("row")).toHaveLength(4);
  expect(within(table).getByText("soil").closest("tr")).toHaveTextContent("× 0.620");
  expect(within(table).getByText("2 more have no effect")).toBeVisible();
});

it("names the common period that stands in place of the period rules", () => {
  show(<ShearRatios across={ACROSS} direction="Y" titleOf={titles} />);
  expect(screen.getByText(/a common period of 1.20 s/)).toHaveTextContent(
    "Ratio of each base shear to that of ASCE 7-16",
  );
});

it("is silent where nothing can be compared", () => {
  show(<ShearRatios across={{ ...ACROSS, shear_ratios: [] }} direction="X" titleOf={titles} />);
  expect(screen.queryByRole("region")).toBeNull();
});
