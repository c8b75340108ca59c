import { Button } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useEffectEvent, useState } from "react";
import { Link } from "react-router";
import { useReviewContext } from "../../review/ReviewContext";
import { useConfirmIdentity } from "../../session/ConfirmIdentity";
import { answered, api, ApiProblem, type Printing } from "../../shared/api/client";
import { printingQuery, useRefresh, useReports } from "../../shared/api/queries";
import { moment } from "../../shared/dates";
import { Problems } from "../../shared/Problems";
import "./report.css";
import { checksOf } from "../../shared/findings";
import { strings } from "./strings";

/** What do I sign? The report as it would be issued now, and those that were. */
export default function ReportPage() {
  const { review, recheck, recheckedAt, findings } = useReviewContext();
  const [seen, setSeen] = useState("");
  const [attempt, setAttempt] = useState(0);
  const reports = useReports(review.id);
  const refresh = useRefresh(review.id);
  const path = { params: { path: { review_id: review.id } } };
  const draft = usePrinting(() => answered(api.POST("/api/reviews/{review_id}/report/draft/", path)));
  const { ask, dialog } = useConfirmIdentity();
  const issue = usePrinting(async () => {
    // what is signed is the page that is shown
    const sign = () => answered(api.POST("/api/reviews/{review_id}/reports/", { ...path, body: { seen } }));
    try {
      return await sign();
    } catch (error) {
      // each signature asks once more who gives it
      const needsSignature = error instanceof ApiProblem && error.problems.some((p) => p.path === "/signature");
      if (!needsSignature) {
        // what changed meanwhile is shown before it can be signed
        if (error instanceof ApiProblem && error.status === 412) setAttempt((n) => n + 1);
        throw error;
      }
      if (!(await ask(strings.youSignTheReportAs))) throw error;
      return sign();
    }
  }, refresh);
  const onTeam = review.role === "lead" || review.role === "reviewer";
  const filed = new Set(findings.flatMap((f) => (f.status === "withdrawn" ? [] : checksOf(f))));
  const unfiled = recheck?.checks.filter((c) => c.role === "origin" && !filed.has(c.id)).length ?? 0;
  const drafts = findings.filter((f) => f.status === "draft").length;
  return (
    <div className="report-page">
      <div className="stage-head report-head">
        <h2 className="stage-title">{strings.report}</h2>
        {onTeam && (
          <span className={unfiled + drafts ? "off" : "quiet"} style={{ fontSize: 13 }}>
            {unfiled > 0 && (
              <>
                <Link to="../sheet">{strings.origins(unfiled)}</Link>
                {strings.withoutAFinding}
              </>
            )}
            {unfiled > 0 && drafts > 0 && " · "}
            {drafts > 0 && (
              <>
                <Link to="../findings">{strings.finding(drafts)}</Link>
                {strings.notIssued}
              </>
            )}
            {unfiled + drafts === 0 && strings.everyOriginIsCoveredBy}
          </span>
        )}
        <span className="end">
          {onTeam && <Link to="../audit">{strings.auditTrail}</Link>}
          {onTeam && <DraftButton printing={draft} />}
          {onTeam && (
            <Button variant="default" component="a" href={`/api/reviews/${review.id}/export/`} download>
              {strings.plumbJson}
            </Button>
          )}
          {review.role === "lead" && (
            <Button color="dark" loading={issue.busy} disabled={!seen} onClick={issue.start}>
              {strings.signAndIssueReport}
              {(reports.data?.length ?? 0) + 1}
            </Button>
          )}
        </span>
      </div>
      <Problems
        error={issue.error ?? draft.error ?? reports.error}
        title={
          issue.error
            ? strings.theReportWasNotIssued
            : draft.error
              ? strings.theReportWasNotPrinted
              : strings.theReportsCouldNotBe
        }
      />
      {reports.data && reports.data.length > 0 && (
        <ul className="report-list">
          {reports.data.map((r) => (
            <li key={r.id}>
              <a href={`/api/reports/${String(r.id)}.pdf`} target="_blank" rel="noreferrer">
                {strings.reportNumbered(r.number)}
              </a>{" "}
              <span className="quiet">
                {strings.signedBySha256(r.issued_by, moment(r.issued_at), r.sha256.slice(0, 12))}
              </span>
            </li>
          ))}
        </ul>
      )}
      {!onTeam && reports.data?.length === 0 && <p className="quiet">{strings.noReportHasBeenIssued}</p>}
      {dialog}
      {onTeam && (
        <iframe
          onLoad={(e) => {
            setSeen(e.currentTarget.contentDocument?.body.dataset["seen"] ?? "");
          }}
          title={strings.previewOfTheReport}
          // of another state of the review it is another page
          key={`${String(recheckedAt)} ${String(attempt)}`}
          src={`/api/reviews/${review.id}/report/preview/`}
        />
      )}
    </div>
  );
}

interface Printed {
  start: () => void;
  busy: boolean;
  /** id of what was printed, to open */
  done: string | undefined;
  error: Error | null;
}

/** A report that is printed by a worker: begun, and assessed until it is there. */
function usePrinting(ask: () => Promise<Printing>, onDone?: () => unknown): Printed {
  const begin = useMutation({ mutationFn: ask });
  const watched = useQuery({ ...printingQuery(begin.data?.id ?? ""), enabled: begin.data !== undefined });
  const now = begin.data && (watched.data ?? begin.data);
  const done = now?.status === "done" ? now.id : undefined;
  const notifyDone = useEffectEvent(() => void onDone?.());
  useEffect(() => {
    if (done) notifyDone();
  }, [done]);
  return {
    start: () => {
      begin.mutate();
    },
    busy: begin.isPending || (now !== undefined && now.status !== "done" && now.status !== "refused" && !watched.error),
    done,
    error:
      begin.error ??
      watched.error ??
      (now?.status === "refused"
        ? new ApiProblem(409, [{ path: "/", message: now.message ?? "", remedy: now.remedy ?? "" }])
        : null),
  };
}

/** Prints the draft; then opens what was printed. */
function DraftButton({ printing }: { printing: Printed }) {
  if (printing.done)
    return (
      <Button variant="default" component="a" href={`/api/printings/${printing.done}.pdf`} target="_blank">
        {strings.openThePdf}
      </Button>
    );
  return (
    <Button variant="default" loading={printing.busy} onClick={printing.start}>
      {strings.printThisDraft}
    </Button>
  );
}
