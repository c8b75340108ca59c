import { Fragment } from "react";

const WORD = /^([([]?[\p{L}Σ/]+)_(\p{L}?[\p{L}\d]{1,7}(?:,[\p{L}\d])?)([)\].,;:]*)$/u;

/** A text in which symbols such as S_DS have their index set low, <= is one sign and Omega a letter; the rest stays. */
export function SymbolText({ text }: { text: string }) {
  return (
    <>
      {text
        .replaceAll("<=", "≤")
        .replaceAll(">=", "≥")
        .replaceAll("Omega_0", "Ω_0")
        .split(/(\s+|\/)/)
        .map((word, i) => {
          const [, head, low, after] = WORD.exec(word) ?? [];
          return low === undefined ? (
            <Fragment key={i}>{word}</Fragment>
          ) : (
            <Fragment key={i}>
              {head}
              <sub style={{ fontSize: "0.78em", lineHeight: 0, verticalAlign: "-0.22em" }}>{low}</sub>
              {after}
            </Fragment>
          );
        })}
    </>
  );
}
