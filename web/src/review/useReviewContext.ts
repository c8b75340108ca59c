import { useOutletContext } from "react-router";
import type { Check, Finding, Recheck, Review } from "../shared/api/client";
import type { SheetFilter, SheetRow, SheetStage } from "../sheet/layout";

/** What every screen of a review starts from. */
export interface ReviewContext {
  review: Review;
  /** of the submission that is looked at; absent for members who see no recheck */
  recheck: Recheck | undefined;
  /** number of the submission that is looked at, where one was chosen */
  submission: number | undefined;
  findings: Finding[];
  selected: Check | undefined;
  select: (id: string) => void;
  /** go to the next or the previous deviation */
  stepDeviation: (by: 1 | -1) => void;
  rows: SheetRow[];
  shown: SheetRow[];
  filter: SheetFilter;
  setFilter: (filter: SheetFilter) => void;
  folded: SheetStage[];
  fold: (stage: SheetStage) => void;
}

export const useReviewContext = () => useOutletContext<ReviewContext>();
