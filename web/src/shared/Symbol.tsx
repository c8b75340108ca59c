import { Fragment } from "react";

/** A symbol such as S_DS with its index set low; several may stand in one label. */
export function SymbolText({ text }: { text: string }) {
  return (
    <>
      {text.split(/(\s+)/).map((word, i) => {
        const [head = "", ...low] = word.split("_");
        return (
          <Fragment key={i}>
            {head}
            {low.length > 0 && (
              <sub style={{ fontSize: "0.78em", lineHeight: 0, verticalAlign: "-0.22em" }}>{low.join(" ")}</sub>
            )}
          </Fragment>
        );
      })}
    </>
  );
}
