import { Link } from "react-router";
import { strings } from "./strings";

/** A stage that nothing was submitted for: what it takes, and where to. */
export function EmptyStage({ what, needed: needed }: { what: string; needed: string }) {
  return (
    <div className="empty">
      <p>{strings.inThisSubmissionThisStage(what, needed)}</p>
      <p>
        <Link to="../exhibits">{strings.uploadATable}</Link>
      </p>
    </div>
  );
}
