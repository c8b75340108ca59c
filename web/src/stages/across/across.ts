import type { Across, AcrossCell } from "../../shared/api/client";
import { figures, trimmed } from "../../shared/numbers";
import { strings } from "./strings";

export type Direction = "X" | "Y";

/** A line style for each edition, the governing one first: own colours, and dashes for those who do not see colours. */
export const LINES = [
  { colour: "ours", dash: "" },
  { colour: "e1", dash: "7 3" },
  { colour: "e2", dash: "2 3" },
  { colour: "e3", dash: "9 3 2 3" },
  { colour: "e4", dash: "5 2" },
  { colour: "e5", dash: "1 3" },
  { colour: "e1", dash: "12 4" },
  { colour: "e2", dash: "6 3 1 3" },
  { colour: "e3", dash: "3 2" },
  { colour: "e4", dash: "10 2 2 2" },
] as const;

export const lineOf = (index: number) => LINES[index % LINES.length] ?? LINES[0];

/** The cell of an edition in a direction: the building's value where the quantity has no direction. */
export function cellOf(
  cells: Across["rows"][number]["cells"],
  edition: string,
  direction: Direction,
): AcrossCell | null {
  const cell = cells.find((c) => c.edition === edition);
  return cell?.both ?? cell?.[direction] ?? null;
}

/** A value as the table shows it: shares stay factors, words in full, nothing where there is no such quantity. */
export function shown(cell: AcrossCell | null): string {
  if (!cell) return "–";
  if (cell.value === null) return cell.note === "no limit" ? strings.noLimit : strings.missingInput;
  return typeof cell.value === "number" ? trimmed(cell.value) : cell.value;
}

export const ASPECTS: Record<string, string> = {
  hazard: strings.hazardAndShapeOfThe,
  hazard_and_soil: strings.hazardWithSoilShapeOf,
  soil: strings.soil,
  importance: strings.importance,
  reduction: strings.reduction,
  period: strings.periodRule,
  minimum: strings.minimum,
  weight: strings.seismicWeight,
};

/** Factors that matter, the largest first; those within half a percent of 1 are only counted. */
export function telling(factors: Across["shear_ratios"][number]["factors"]) {
  const apart = factors.filter((f) => Math.abs(Math.log(f.factor)) > 0.005);
  return { apart, alike: factors.length - apart.length };
}

/** "x 1.25" for a factor. */
export const times = (factor: number) => `× ${figures(factor, 3)}`;
