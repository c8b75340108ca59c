import { useState } from "react";
import { Bench } from "../../bench/Bench";
import { lateralTracks } from "../../heightlog/data";
import { HeightLog } from "../../heightlog/HeightLog";
import { useReviewContext } from "../../review/useReviewContext";
import { ChecksTable } from "../../shared/ChecksTable";

/** Theirs and ours of the static method, by direction and over the height. */
export default function LateralPage() {
  const { review, recheck, findings, selected, select, stepDeviation } = useReviewContext();
  const [direction, setDirection] = useState<"X" | "Y">(selected?.direction === "Y" ? "Y" : "X");
  if (!recheck) return null;
  const checks = recheck.checks.filter(
    (c) => (c.stage === "lateral" || c.stage === "weight") && c.story === null && (c.direction === null || c.direction === direction),
  );
  return (
    <div className="split wide">
      <main className="stage">
        <div className="stage-head"><h2 className="stage-title">Lateral</h2><span className="quiet">static forces and the weight they act on</span></div>
        <HeightLog recheck={recheck} brief={review.brief} tracks={lateralTracks(recheck, direction)} direction={direction} onDirection={setDirection} onSelect={select} />
        <ChecksTable caption={`Theirs and ours, direction ${direction}`} checks={checks} selected={selected?.id} onSelect={select} />
      </main>
      <Bench recheck={recheck} check={selected} findings={findings} reviewId={review.id} onSelect={select} onStep={stepDeviation} />
    </div>
  );
}
