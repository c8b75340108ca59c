import type { Vocabulary } from "../shared/api/client";
import type { SheetStage } from "../sheet/layout";

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
  "what-if",
  "requirements",
  "rounds",
  "findings",
  "report",
] as const;

export type Page = (typeof PAGES)[number];

export const stagesOf = (vocabulary: Vocabulary | undefined): SheetStage[] =>
  (vocabulary?.stages ?? []).map(({ id }) => ({ id, page: PAGES.find((p) => p === id) }));
