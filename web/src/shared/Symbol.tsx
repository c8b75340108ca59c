import { Fragment } from "react";

// not part of a longer word or of a file name
const SYMBOL = /(?<![\p{L}\d_.-])(Σ?[\p{L}/]{1,8})_([\p{L}\d]{1,8}(?:,[\p{L}\d])?)(?![\p{L}\d_-])(?!\.[\p{L}\d])/gu;

interface Piece {
  text: string;
  index: boolean;
}

/** A text cut into plain pieces and indices of symbols. */
function pieces(text: string): Piece[] {
  const signs = text.replaceAll("<=", "≤").replaceAll(">=", "≥").replaceAll("Omega_0", "Ω_0");
  const cut: Piece[] = [];
  let end = 0;
  for (const found of signs.matchAll(SYMBOL)) {
    const [whole, head, index] = found;
    cut.push({ text: signs.slice(end, found.index) + (head ?? ""), index: false }, { text: index ?? "", index: true });
    end = found.index + whole.length;
  }
  return [...cut, { text: signs.slice(end), index: false }];
}

/** A text in which symbols such as S_DS or S_a(T) have their index as a subscript; the rest is unchanged. */
export function SymbolText({ text }: { text: string }) {
  return (
    <>
      {pieces(text).map((piece, i) =>
        piece.index ? (
          <sub key={i} className="index">
            {piece.text}
          </sub>
        ) : (
          <Fragment key={i}>{piece.text}</Fragment>
        ),
      )}
    </>
  );
}

/** The same within the text of a drawing. */
export function SymbolSpans({ text }: { text: string }) {
  const cut = pieces(text);
  return (
    <>
      {cut
        .filter((piece) => piece.text)
        .map((piece, i) => (
          <tspan key={i} {...(piece.index ? { dy: 3, fontSize: "0.8em" } : cut[i - 1]?.index ? { dy: -3 } : {})}>
            {piece.text}
          </tspan>
        ))}
      {/* back on the line for what follows */}
      {cut.at(-1)?.text === "" && cut.at(-2)?.index && <tspan dy={-3}>{"\u200b"}</tspan>}
    </>
  );
}
