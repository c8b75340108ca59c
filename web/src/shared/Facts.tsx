import { useState } from "react";
import type { Fact } from "./api/client";
import { byDoubt, factValue } from "./facts";
import { counted } from "./numbers";
import { SymbolText } from "./Symbol";
import "./facts.css";
import { strings } from "./strings";

interface Props {
  facts: Fact[];
  /** position of the story that is assessed */
  index?: number | null;
  /** how many are shown before the rest is required */
  most?: number;
}

/** Facts that verdicts rest on: value, source, where it was found, and what contradicts it. */
export function Facts({ facts, index = null, most = Infinity }: Props) {
  const [all, setAll] = useState(false);
  const ordered = byDoubt(facts);
  const doubtful = ordered.filter((f) => f.contradicted_by).length;
  const first = all ? ordered : ordered.slice(0, Math.max(most, doubtful));
  return (
    <>
      <ul className="facts">
        {first.map((fact) => (
          <li key={fact.id} className={fact.contradicted_by ? "contradicted" : undefined} title={fact.clause}>
            <span>
              <SymbolText text={fact.meaning} />
              {fact.direction && strings.inWord(fact.direction)}
              {fact.case && `, ${fact.case}`}:{" "}
            </span>
            <b className={fact.source === "submitted" ? "theirs" : "ours"}>
              <SymbolText text={factValue(fact.value, index, fact.unit)} />
            </b>
            <span className="quiet">
              {" "}
              {fact.source}
              {fact.where && (
                <>
                  , <SymbolText text={fact.where} />
                </>
              )}
            </span>
            {fact.contradicted_by && (
              <span className="off">
                ; {fact.contradicted_by.source}: {factValue(fact.contradicted_by.value, index, fact.unit)}
              </span>
            )}
          </li>
        ))}
      </ul>
      {ordered.length > first.length && (
        <button
          type="button"
          className="linklike"
          onClick={() => {
            setAll(true);
          }}
        >
          {counted(ordered.length - first.length, strings.moreFact)}
        </button>
      )}
    </>
  );
}
