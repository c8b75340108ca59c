import type { Vocabulary } from "../shared/api/client";

/** The pages of a review, in the order in which they stand. */
export const PAGES = [
  "sheet",
  "brief",
  "exhibits",
  "ground",
  "spectrum",
  "weight",
  "frame",
  "modes",
  "lateral",
  "scaling",
  "twist",
  "drift",
  "across",
  "findings",
  "report",
] as const;

export type Page = (typeof PAGES)[number];

/** A stage of the recheck with the page that is its own, where there is one. */
export interface SheetStage {
  id: string;
  page: Page | undefined;
}

export const stagesOf = (vocabulary: Vocabulary | undefined): SheetStage[] =>
  (vocabulary?.stages ?? []).map(({ id }) => ({ id, page: PAGES.find((p) => p === id) }));
