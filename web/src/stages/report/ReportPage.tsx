import { Button, Menu, Modal } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useState } from "react";
import { Link } from "react-router";
import { useReviewContext } from "../../review/ReviewContext";
import { useConfirmIdentity } from "../../session/ConfirmIdentity";
import { answered, api, ApiProblem } from "../../shared/api/client";
import { useRefresh, useReports, useSession } from "../../shared/api/queries";
import { moment } from "../../shared/dates";
import { Problems } from "../../shared/Problems";
import { Certificate } from "./Certificate";
import { PlanDialog } from "./PlanDialog";
import { PrintMenu } from "./PrintMenu";
import "./report.css";
import { usePrinting } from "./usePrinting";
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
  const [planning, plan] = useDisclosure(false);
  const [second, setSecond] = useState<number | null>(null);
  const me = useSession().data?.person?.name;
  const { ask, dialog } = useConfirmIdentity();
  /** Sign; each signature asks once more who gives it. */
  const confirmed = async <T,>(sign: () => Promise<T>): Promise<T> => {
    try {
      return await sign();
    } catch (error) {
      const needsSignature = error instanceof ApiProblem && error.problems.some((p) => p.path === "/signature");
      if (!needsSignature) {
        // what changed meanwhile is shown before it can be signed
        if (error instanceof ApiProblem && error.status === 412) setAttempt((n) => n + 1);
        throw error;
      }
      if (!(await ask(strings.youSignTheReportAs))) throw error;
      return sign();
    }
  };
  const issue = usePrinting(
    (withCertificate: boolean) =>
      // what is signed is the page that is shown
      confirmed(() =>
        answered(
          api.POST("/api/reviews/{review_id}/reports/", { ...path, body: { seen, with_certificate: withCertificate } }),
        ),
      ),
    refresh,
  );
  const [signedWith, setSignedWith] = useState<string | null>(null);
  const toSign = issue.toSign && issue.toSign.id !== signedWith ? issue.toSign : undefined;
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
          {onTeam && (
            <Button variant="default" onClick={plan.open}>
              {strings.sectionsButton}
            </Button>
          )}
          {onTeam && <PrintMenu />}
          {review.role === "lead" && (
            <Menu position="bottom-end">
              <Menu.Target>
                <Button color="dark" loading={issue.busy} disabled={!seen}>
                  {strings.signAndIssueReport}
                  {(reports.data?.length ?? 0) + 1}
                </Button>
              </Menu.Target>
              <Menu.Dropdown>
                <Menu.Item
                  onClick={() => {
                    issue.start(true);
                  }}
                >
                  {strings.withACertificate}
                </Menu.Item>
                <Menu.Item
                  onClick={() => {
                    issue.start(false);
                  }}
                >
                  {strings.withASignedByLine}
                </Menu.Item>
              </Menu.Dropdown>
            </Menu>
          )}
        </span>
      </div>
      <Problems
        error={issue.error ?? reports.error}
        title={issue.error ? strings.theReportWasNotIssued : strings.theReportsCouldNotBe}
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
                {r.certificate && strings.certifiedAs(r.certificate)}
                {r.countersigned_by && strings.countersignedBy(r.countersigned_by, moment(r.countersigned_at ?? ""))}
              </span>
              {!r.complete && (
                <>
                  {" "}
                  <b className="off">{strings.waitsForSecond}</b>
                  {onTeam && r.issued_by !== me && (
                    <Button
                      size="compact-xs"
                      variant="default"
                      ml={8}
                      onClick={() => {
                        setSecond(r.id);
                      }}
                    >
                      {strings.countersign}
                    </Button>
                  )}
                </>
              )}
            </li>
          ))}
        </ul>
      )}
      {!onTeam && reports.data?.length === 0 && <p className="quiet">{strings.noReportHasBeenIssued}</p>}
      {dialog}
      <Modal opened={planning} onClose={plan.close} title={strings.sectionsButton}>
        <PlanDialog
          onDone={() => {
            plan.close();
            setAttempt((n) => n + 1);
          }}
        />
      </Modal>
      <Modal
        opened={toSign !== undefined}
        onClose={() => {
          setSignedWith(toSign?.id ?? null);
        }}
        title={strings.withACertificate}
      >
        {toSign && (
          <Certificate
            path={`/api/printings/${toSign.id}/sign/`}
            onDone={async () => {
              setSignedWith(toSign.id);
              await refresh();
            }}
          />
        )}
      </Modal>
      <Modal
        opened={second !== null}
        onClose={() => {
          setSecond(null);
        }}
        title={strings.countersign}
      >
        {second !== null && (
          <Certificate
            path={`/api/reports/${String(second)}/countersign/`}
            optional
            confirmed={confirmed}
            onDone={async () => {
              setSecond(null);
              await refresh();
            }}
          />
        )}
      </Modal>
      {onTeam && !seen && <p className="quiet">{strings.settingThePreview}</p>}
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
