import { Button, SegmentedControl, useComputedColorScheme } from "@mantine/core";
import { useReducedMotion } from "@mantine/hooks";
import { useState } from "react";
import { Link } from "react-router";
import { Bench } from "../../bench/Bench";
import type { ModalAnswer, SubmittedModes } from "../../model/answers";
import { RunStatus } from "../../model/RunStatus";
import { useModel, useRun } from "../../model/useModel";
import { Warnings } from "../../model/Warnings";
import { useReviewContext } from "../../review/ReviewContext";
import { ChecksTable } from "../../shared/ChecksTable";
import { ModalShears } from "./ModalShears";
import { ModesTable } from "./ModesTable";
import { ModeViewer } from "./ModeViewer";
import { RunningSums } from "./RunningSums";
import "./modes.css";
import { strings } from "./strings";
import css from "./ModesPage.module.css";

/** Enough modes, of the right kind? Theirs and ours, matched by shape. */
export default function ModesPage() {
  const { review, recheck, selected, select } = useReviewContext();
  const scheme = useComputedColorScheme("light");
  const still = useReducedMotion();
  const model = useModel(review.id);
  const modal = useRun<ModalAnswer>(review.id, "modal", model.number, review.brief_number, model.number > 0);
  const [chosen, setChosen] = useState(1);
  const [direction, setDirection] = useState<"X" | "Y">("X");
  if (!recheck) return null;
  const answer = modal.answer;
  const submitted = recheck.modes;
  const comparison = submitted?.comparison ?? null;
  const checks = recheck.checks.filter((c) => c.stage === "modes");
  const mode = Math.min(chosen, answer?.modes.length ?? 1);
  return (
    <div className="split wide">
      <main className="stage">
        <div className="stage-head">
          <h2 className="stage-title">{strings.modes}</h2>
          <span className="quiet">{strings.numberAndKindOfModes}</span>
        </div>
        {model.number === 0 && !model.loading && (
          <div className="empty">
            <p>{strings.thereIsNoReferenceModel}</p>
            <Button component={Link} to="../frame">
              {strings.createOneFromLateralLines}
            </Button>
          </div>
        )}
        {model.number > 0 && <RunStatus {...modal} />}
        {comparison?.swapped && <p className="modes-word off">{strings.xAndYAppearExchanged}</p>}
        {answer && (
          <>
            <p className="modes-word">
              {(["X", "Y"] as const).map((d) => (
                <span key={d}>
                  <b>{d}</b>{" "}
                  {answer.reached_at[d] === null ? (
                    <span className="off">
                      {strings.ourModesDoNotReach(answer.modes.length, Math.round(100 * answer.target))}
                    </span>
                  ) : (
                    <>{strings.oursReachWithMode(Math.round(100 * answer.target), answer.reached_at[d])}</>
                  )}
                  {comparison && comparison.sums[d] !== null && (
                    <>
                      ,{" "}
                      <span className={comparison.enough[d] ? "theirs" : "limit"}>
                        {strings.theirsSumTo((100 * (comparison.sums[d] ?? 0)).toFixed(1))}
                      </span>
                    </>
                  )}
                </span>
              ))}
            </p>
            <ModeViewer
              model={model.model}
              answer={answer}
              mode={mode}
              theirs={theirsOf(submitted, mode)}
              swapped={comparison?.swapped ?? false}
              scheme={scheme}
              still={still}
              onMode={setChosen}
            />
          </>
        )}
        {(answer ?? submitted) && (
          <ModesTable
            answer={answer}
            submitted={submitted}
            chosen={mode}
            onChoose={setChosen}
            checks={checks}
            onSelect={select}
          />
        )}
        <ModalShears recheck={recheck} />
        {answer && (
          <>
            <div className={`stage-head ${css["below"] ?? ""}`}>
              <h3 className={`part ${css["spaced"] ?? ""}`}>{strings.runningSumOfTheEffective}</h3>
              <SegmentedControl
                aria-label={strings.directionOfTheRunningSums}
                value={direction}
                data={["X", "Y"]}
                onChange={(v) => {
                  setDirection(v);
                }}
              />
            </div>
            <RunningSums answer={answer} submitted={submitted} direction={direction} scheme={scheme} />
            <p className="quiet modes-small">
              {strings.rayleighsPeriodsAsASecond}
              {answer.rayleigh.X?.toFixed(3) ?? "–"} s, Y {answer.rayleigh.Y?.toFixed(3) ?? "–"}
              {strings.sTheNumberOfModes(answer.counted_by)}
            </p>
            <Warnings warnings={answer.warnings} />
          </>
        )}
        <ChecksTable
          caption={strings.checksOfTheSubmittedModes}
          checks={checks}
          selected={selected?.id}
          onSelect={select}
        />
      </main>
      <Bench stage="modes" />
    </div>
  );
}

/** Their mode that ours was matched with. */
function theirsOf(submitted: SubmittedModes | null, ours: number) {
  const number = submitted?.comparison?.rows.find((r) => r.ours === ours)?.theirs;
  return number ? submitted.theirs[number - 1] : undefined;
}
