import { Button, Progress } from "@mantine/core";
import type { Run } from "../shared/api/client";
import { Problems } from "../shared/Problems";
import { strings } from "./strings";
import css from "./RunStatus.module.css";

interface Props {
  run: Run | undefined;
  error: unknown;
  asking: boolean;
  cancel: () => void;
  again: () => void;
}

/** What a run is doing, and a way to stop it; why there is no answer, where there is none. */
export function RunStatus({ run, error, asking, cancel, again }: Props) {
  if (error) return <Problems error={error} title={strings.theReferenceModelCannotBe} />;
  if (asking)
    return (
      <p className="quiet" role="status">
        {strings.analysingTheReferenceModel}
      </p>
    );
  if (!run || run.status === "done") return null;
  if (run.status === "queued" || run.status === "running") {
    const share = run.share ?? 0;
    const phase = run.status === "queued" ? strings.waitingForAWorker : run.phase || "beginning";
    return (
      <div role="status" aria-label={strings.analysisOfTheReferenceModel} className={css["row"]}>
        <span className={css["spaced"]}>{phase}…</span>
        <Progress
          value={100 * share}
          aria-label={`${phase}, ${String(Math.round(100 * share))} %`}
          style={{ flex: 1 }}
          size="sm"
        />
        <Button variant="default" onClick={cancel}>
          {strings.cancel}
        </Button>
      </div>
    );
  }
  const message = {
    refused: strings.theReferenceModelIsNot,
    cancelled: strings.theAnalysisWasCancelled,
    failed: strings.theAnalysisFailed,
  }[run.status as "refused" | "cancelled" | "failed"];
  return (
    <div className="problem" role="alert">
      <p className={css["strong"]}>{message}</p>
      {run.problems.map((p, i) => (
        <p key={i}>
          {p.message.charAt(0).toUpperCase() + p.message.slice(1)}. <span className="quiet">{p.remedy}</span>
        </p>
      ))}
      {run.status !== "refused" && (
        <Button variant="default" mt={6} onClick={again}>
          {strings.runAgain}
        </Button>
      )}
    </div>
  );
}
