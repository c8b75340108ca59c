import { Link } from "react-router";

/** A stage that nothing was handed in for: what it takes, and where to. */
export function NothingYet({ what, hand }: { what: string; hand: string }) {
  return (
    <div className="empty">
      <p>
        {what} in this submission. This stage takes {hand}.
      </p>
      <p>
        <Link to="../exhibits">Hand a table in</Link>
      </p>
    </div>
  );
}
