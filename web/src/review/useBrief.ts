import { useReviewContext } from "./ReviewContext";
import type { Brief } from "../shared/api/client";
import { useBriefChange } from "../shared/api/queries";

/** The brief of the open review and a way to change it: `change` gets a copy to write into. */
export function useBrief() {
  const { review, submission } = useReviewContext();
  const { save, govern, undo } = useBriefChange(review.id, submission);
  const change = (edit: (brief: Brief) => void) => {
    save.mutate(edit);
  };
  return {
    brief: review.brief,
    change,
    govern: (edition: string) => {
      govern.mutate(edition);
    },
    error: save.error ?? govern.error ?? undo.error,
    undo: () => {
      undo.mutate();
    },
    canUndo: review.can_undo,
    busy: save.isPending || govern.isPending || undo.isPending,
  };
}
