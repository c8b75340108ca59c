import { Fragment } from "react";

// not part of a longer word or of a file name
const SYMBOL = /(?<![\p{L}\d_.-])(Σ?[\p{L}/]{1,8})_([\p{L}\d]{1,8}(?:,[\p{L}\d])?)(?![\p{L}\d_-])(?!\.[\p{L}\d])/gu;

/** A text in which symbols such as S_DS or S_a(T) have their index as a subscript; the rest is unchanged. */
export function SymbolText({ text }: { text: string }) {
  const signs = text.replaceAll("<=", "≤").replaceAll(">=", "≥").replaceAll("Omega_0", "Ω_0");
  const parts = [];
  let end = 0;
  for (const found of signs.matchAll(SYMBOL)) {
    const [whole, head, index] = found;
    parts.push(signs.slice(end, found.index) + (head ?? ""));
    parts.push(
      <sub key={found.index} className="index">
        {index}
      </sub>,
    );
    end = found.index + whole.length;
  }
  parts.push(signs.slice(end));
  return (
    <>
      {parts.map((part, i) => (
        <Fragment key={i}>{part}</Fragment>
      ))}
    </>
  );
}
