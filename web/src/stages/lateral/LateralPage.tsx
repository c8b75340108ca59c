import { useState } from "react";
import { Bench } from "../../bench/Bench";
import { HeightLog } from "../../heightlog/HeightLog";
import { useReviewContext } from "../../review/useReviewContext";
import { ChecksTable } from "../../shared/ChecksTable";
import type { Brief } from "../../shared/api/client";

/** Theirs and ours of the static method, by direction and over the height. */
export default function LateralPage() {
  const { review, recheck, findings, selected, select, stepDeviation } = useReviewContext();
  const [direction, setDirection] = useState<"X" | "Y">(selected?.direction === "Y" ? "Y" : "X");
  if (!recheck) return null;
  const brief: Brief = review.brief;
  const plans = recheck.stories.map((name) => {
    const plan = brief.stories?.find((s) => s.name === name)?.plan;
    return plan && plan.length === 2 ? ([plan[0] ?? 1, plan[1] ?? 1] as [number, number]) : null;
  });
  const checks = recheck.checks.filter(
    (c) => (c.stage === "lateral" || c.stage === "weight") && c.story === null && (c.direction === null || c.direction === direction),
  );
  return (
    <div className="split wide">
      <main className="stage">
        <div className="stage-head"><h2 className="stage-title">Lateral</h2><span className="quiet">static forces and the weight they act on</span></div>
        <HeightLog recheck={recheck} plans={plans} direction={direction} onDirection={setDirection} onSelect={select} />
        <ChecksTable caption={`Theirs and ours, direction ${direction}`} checks={checks} selected={selected?.id} onSelect={select} />
      </main>
      <Bench recheck={recheck} check={selected} findings={findings} reviewId={review.id} onSelect={select} onStep={stepDeviation} />
    </div>
  );
}
