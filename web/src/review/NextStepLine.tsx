import { useState } from "react";
import { Link } from "react-router";
import { nextStep } from "./nextStep";
import { useReviewContext } from "./ReviewContext";
import { strings } from "./strings";

const HIDDEN = "plumb without next step";

/** What comes next in the review, as a link to where it is done; it can be hidden. */
export function NextStepLine() {
  const { review, stored, findings } = useReviewContext();
  const [hidden, setHidden] = useState(() => localStorage.getItem(HIDDEN) !== null);
  const step = hidden ? null : nextStep(review, stored, findings);
  if (!step) return null;
  const query = new URLSearchParams([
    ...(step.check ? [["check", step.check]] : []),
    ...(step.finding === undefined ? [] : [["finding", String(step.finding)]]),
  ]).toString();
  return (
    <p className="next-step">
      {strings.next}
      <Link to={`/reviews/${review.id}/${step.page}${query && `?${query}`}`}>{step.words}</Link>
      <button
        type="button"
        className="linklike quiet"
        onClick={() => {
          localStorage.setItem(HIDDEN, "1");
          setHidden(true);
        }}
      >
        {strings.hide}
      </button>
    </p>
  );
}
