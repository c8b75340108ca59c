import { Link } from "react-router";
import { useReviewContext } from "../../review/ReviewContext";
import { SymbolText } from "../../shared/Symbol";
import { mentions } from "./register";

/** A text of a finding; the checks and findings that it mentions are links for who sees them. */
export function FindingText({ text }: { text: string }) {
  const { review, recheck } = useReviewContext();
  const known = new Set(recheck?.checks.map((c) => c.id));
  return (
    <>
      {mentions(text, known).map((piece, i) =>
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
