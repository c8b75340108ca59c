import { createContext, useContext } from "react";
import type { Brief, CauseSearch, Causes, Check, Finding, Recheck, Review, WhatIf } from "../shared/api/client";
import type { Assumptions } from "../shared/api/queries";
import type { SheetFilter, SheetRow } from "../sheet/layout";
import { strings } from "./strings";

/** What every screen of a review starts from. */
export interface ReviewContext {
  review: Review;
  /** of the submission that is assessed; absent for members who see no recheck */
  recheck: Recheck | undefined;
  /** the recheck without the assumptions, where some are made; else the same one */
  stored: Recheck | undefined;
  /** the brief under the assumptions; where none are made, that of the review */
  assumedBrief: Brief;
  /** what is otherwise; absent where nothing is */
  whatIf: Assumptions | undefined;
  /** the verdicts that are others under the assumptions */
  flips: WhatIf["flips"];
  /** assume something else, or nothing */
  assume: (assumptions: Assumptions | null) => void;
  /** of the deviations; absent until they are found */
  causes: Causes | undefined;
  causesPending: boolean;
  /** how far the search for them is, where a job does it, with what stops it or begins it anew */
  causeSearch: (CauseSearch & { change: (begin: boolean) => void }) | undefined;
  /** name of the cause that is applied to the sheet */
  appliedCause: string | null;
  applyCause: (name: string | null) => void;
  /** when the recheck came, ms; what is required beside it belongs to the same one */
  recheckedAt: number;
  /** number of the submission that is assessed, where one was chosen */
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
  /** ids of the stages that are folded on the sheet */
  folded: string[];
  fold: (stage: string) => void;
}

const Context = createContext<ReviewContext | null>(null);

export const ReviewProvider = Context.Provider;

export function useReviewContext(): ReviewContext {
  const context = useContext(Context);
  if (!context) throw new Error(strings.thisComponentNeedsAReview);
  return context;
}
