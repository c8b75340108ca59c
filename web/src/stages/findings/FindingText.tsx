import { Link } from "react-router";
import { useReviewContext } from "../../review/ReviewContext";
import { SymbolText } from "../../shared/Symbol";
import { type Known, mentions } from "./register";

/** A text of a finding; the checks and findings that it mentions are links for who sees them. */
export function FindingText({ text, names }: { text: string; names: Known }) {
  const { review } = useReviewContext();
  return (
    <>
      {mentions(text, names).map((piece, i) =>
        piece.check === undefined && piece.finding === undefined ? (
          <SymbolText key={i} text={piece.text} />
        ) : (
          <Link
            key={i}
            to={
              piece.check === undefined
                ? `/reviews/${review.id}/findings?finding=${String(piece.finding)}`
                : `/reviews/${review.id}/sheet?check=${encodeURIComponent(piece.check)}`
            }
          >
            <SymbolText text={piece.text} />
          </Link>
        ),
      )}
    </>
  );
}
