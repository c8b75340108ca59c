import { Link } from "react-router";
import { strings } from "./strings";

/** A stage that nothing was handed in for: what it takes, and where to. */
export function NothingYet({ what, hand }: { what: string; hand: string }) {
  return (
    <div className="empty">
      <p>{strings.inThisSubmissionThisStage(what, hand)}</p>
      <p>
        <Link to="../exhibits">{strings.uploadATable}</Link>
      </p>
    </div>
  );
}
