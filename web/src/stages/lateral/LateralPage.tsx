import { useState } from "react";
import { Bench } from "../../bench/Bench";
import { lateralTracks } from "../../heightlog/data";
import { HeightLog } from "../../heightlog/HeightLog";
import { useReviewContext } from "../../review/ReviewContext";
import { ChecksTable } from "../../shared/ChecksTable";
import { SymbolText } from "../../shared/Symbol";
import { TwoStage } from "./TwoStage";
import { strings } from "./strings";

/** Theirs and ours of the static method, by direction and over the height. */
export default function LateralPage() {
  const { recheck, selected, select, assumedBrief } = useReviewContext();
  const [direction, setDirection] = useState<"X" | "Y">(selected?.direction === "Y" ? "Y" : "X");
  if (!recheck) return null;
  const checks = recheck.checks.filter(
    (c) =>
      (c.stage === "lateral" || c.stage === "weight") &&
      c.story === null &&
      (c.direction === null || c.direction === direction),
  );
  const notes = recheck.notes.flatMap((n) => (n.startsWith(`${direction}: `) ? n.slice(3) : []));
  return (
    <div className="split wide">
      <main className="stage">
        <div className="stage-head">
          <h2 className="stage-title">{strings.lateral}</h2>
          <span className="quiet">{strings.staticForcesAndTheWeight}</span>
        </div>
        <HeightLog
          recheck={recheck}
          brief={assumedBrief}
          tracks={lateralTracks(recheck, direction)}
          direction={direction}
          onDirection={setDirection}
          onSelect={select}
        />
        {notes.length > 0 && (
          <ul className="notes">
            {notes.map((n) => (
              <li key={n}>
                <SymbolText text={n} />
              </li>
            ))}
          </ul>
        )}
        <TwoStage recheck={recheck} direction={direction} />
        <ChecksTable
          caption={strings.theirsAndOursDirection(direction)}
          checks={checks}
          selected={selected?.id}
          onSelect={select}
        />
      </main>
      <Bench stage="lateral" />
    </div>
  );
}
