import { Button, SegmentedControl, Select, Textarea, TextInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { useReviewContext } from "../../review/ReviewContext";
import { answered, api, ApiProblem, type Finding, type Severity } from "../../shared/api/client";
import { useRefresh } from "../../shared/api/queries";
import { moment } from "../../shared/dates";
import { Mark, shapeOf } from "../../shared/Mark";
import { oursText, percent, theirsText } from "../../shared/numbers";
import { SymbolText } from "../../shared/Symbol";
import { Problems } from "../../shared/Problems";
import "./findings.css";
import { strings } from "./strings";
import css from "./FindingsPage.module.css";

type Status = Finding["status"];
const SEVERITY: Record<Severity, string> = {
  must: strings.mustBeAnswered,
  should: strings.shouldBeAnswered,
  note: strings.forTheRecord,
};
const ACTIONS: Record<string, string> = {
  draft: strings.reopen,
  issued: strings.issue,
  answered: strings.markAsAnswered,
  settled: strings.close,
  withdrawn: strings.withdraw,
};
const OPEN: Status[] = ["draft", "issued", "answered"];

/** The register: every finding with its thread, followed until it is closed. */
export default function FindingsPage() {
  const { review, findings } = useReviewContext();
  const [params, setParams] = useSearchParams();
  const [which, setWhich] = useState("all");
  const shown = findings.filter((f) => which === "all" || OPEN.includes(f.status));
  const chosen = findings.find((f) => String(f.number) === params.get("finding")) ?? shown[0];
  const onTeam = review.role === "lead" || review.role === "reviewer";
  return (
    <div className="split">
      <main className="stage">
        <div className="stage-head">
          <h2 className="stage-title">{strings.findings}</h2>
          <SegmentedControl
            aria-label={strings.whichFindings}
            value={which}
            onChange={setWhich}
            data={[
              { value: "all", label: strings.all(findings.length) },
              { value: "open", label: strings.open(findings.filter((f) => OPEN.includes(f.status)).length) },
            ]}
          />
        </div>
        {shown.length === 0 ? (
          <p className="empty quiet">
            {onTeam ? (
              <>
                {strings.noFindings}
                {which === "open" ? strings.areOpen : strings.yet}
                {strings.selectADeviationOnThe}
                <Link to="../sheet">{strings.sheet}</Link>
                {strings.editTheDraftedRemarkAnd}
              </>
            ) : (
              strings.noFindingHasBeenIssued
            )}
          </p>
        ) : (
          <table className="plain register">
            <thead>
              <tr>
                <th className="n">{strings.no}</th>
                <th>{strings.finding}</th>
                <th>{strings.severity}</th>
                <th>{strings.state}</th>
                <th className="n">{strings.thread}</th>
              </tr>
            </thead>
            <tbody>
              {shown.map((f) => (
                <tr key={f.id} aria-current={f.id === chosen?.id}>
                  <td className="n">{f.number}</td>
                  <td>
                    <button
                      type="button"
                      onClick={() => {
                        setParams(
                          (p) => {
                            p.set("finding", String(f.number));
                            return p;
                          },
                          { replace: true },
                        );
                      }}
                    >
                      <SymbolText text={f.title} />
                    </button>
                    <div className="quiet">{f.clause}</div>
                  </td>
                  <td>{SEVERITY[f.severity ?? "must"]}</td>
                  <td className={f.status === "settled" ? "ours" : OPEN.includes(f.status) ? "off" : "quiet"}>
                    {f.status}
                  </td>
                  <td className="n quiet">{f.thread.length || ""}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </main>
      {chosen ? (
        <Detail
          key={`${String(chosen.id)}-${chosen.status}`}
          finding={chosen}
          reviewId={review.id}
          role={review.role}
        />
      ) : (
        <aside className="bench" />
      )}
    </div>
  );
}

function Detail({ finding, reviewId, role }: { finding: Finding; reviewId: string; role: string }) {
  const refresh = useRefresh(reviewId);
  const onTeam = role === "lead" || role === "reviewer";
  const editable = onTeam && finding.status === "draft";
  const [title, setTitle] = useState(finding.title);
  const [text, setText] = useState(finding.text);
  const [severity, setSeverity] = useState<Severity>(finding.severity ?? "must");
  const [message, setMessage] = useState("");
  const [before, setBefore] = useState(finding);
  const path = { params: { path: { finding_id: finding.id } } };
  const change = useMutation({
    mutationFn: (body: { title?: string; text?: string; severity?: Severity; status?: Status }) =>
      answered(
        api.PATCH("/api/findings/{finding_id}/", {
          params: { ...path.params, header: { "If-Match": `"${String(finding.revision)}"` } },
          body,
        }),
      ),
    onSuccess: async (changed) => {
      setBefore(changed);
      await refresh();
    },
    onError: (error) => {
      // somebody was quicker: it is shown in its present state, and what was typed is kept
      if (error instanceof ApiProblem && error.status === 412) void refresh();
    },
  });
  const write = useMutation({
    mutationFn: () => answered(api.POST("/api/findings/{finding_id}/messages/", { ...path, body: { text: message } })),
    onSuccess: async () => {
      setMessage("");
      await refresh();
    },
  });
  // only what is changed here is sent: what somebody else changed meanwhile stays theirs
  const mine = {
    ...(title !== before.title && title !== finding.title && { title }),
    ...(text !== before.text && text !== finding.text && { text }),
    ...(severity !== before.severity && severity !== finding.severity && { severity }),
  };
  const edited = Object.keys(mine).length > 0;
  return (
    <aside className="bench" aria-label={strings.findingNumbered(finding.number)}>
      <p className="bench-place">
        {strings.findingHead(finding.number)}
        {finding.status} · {finding.author}, {moment(finding.created_at)}
        {finding.submission && strings.on(finding.submission)}
      </p>
      {finding.origin && (
        <p className="quiet">
          {strings.importedWithTheReviewFiled}
          {finding.origin.author || strings.somebody}
          {strings.onAnotherInstallation}
          {finding.origin.differs.length > 0 && (
            <b className="off">
              {strings.itsEvidenceDiffersFromThe}
              <SymbolText text={finding.origin.differs.join(", ")} />
              {strings.recomputedAreShown}
            </b>
          )}
          {finding.origin.unknown.length > 0 && (
            <b className="off">
              {strings.theRecheckHereHasNo}
              <SymbolText text={finding.origin.unknown.join(", ")} />.
            </b>
          )}
          {finding.origin.differs.length + finding.origin.unknown.length === 0 && strings.theRecheckHereGivesThe}
        </p>
      )}
      {editable ? (
        <>
          <TextInput
            aria-label={strings.title}
            value={title}
            onChange={(e) => {
              setTitle(e.currentTarget.value);
            }}
            maxLength={200}
            mb={6}
          />
          <Textarea
            aria-label={strings.text}
            autosize
            minRows={4}
            value={text}
            onChange={(e) => {
              setText(e.currentTarget.value);
            }}
            maxLength={5000}
          />
          <Select
            aria-label={strings.severityLabel}
            mt={6}
            w={180}
            allowDeselect={false}
            value={severity}
            data={Object.entries(SEVERITY).map(([value, label]) => ({ value, label }))}
            onChange={(v) => {
              setSeverity((v ?? "must") as Severity);
            }}
          />
        </>
      ) : (
        <>
          <h2 className="bench-title">
            <SymbolText text={finding.title} />
          </h2>
          <p className={`quiet ${css["smallLine"] ?? ""}`}>
            {SEVERITY[finding.severity ?? "must"]}
            {finding.clause && ` · ${finding.clause}`}
          </p>
          <p className="finding-text">
            <SymbolText text={finding.text} />
          </p>
        </>
      )}
      <Problems error={change.error} title={strings.nothingWasChanged} />
      {editable && finding.revision !== before.revision && (
        <div className="meanwhile">
          {(["title", "text"] as const).map((part) => {
            const [typed, take] = part === "title" ? [title, setTitle] : [text, setText];
            return (
              finding[part] !== before[part] &&
              finding[part] !== typed && (
                <p key={part}>
                  {strings.theIsNow(part, finding[part])}
                  <Button
                    variant="subtle"
                    size="compact-xs"
                    onClick={() => {
                      take(finding[part]);
                    }}
                  >
                    {strings.useIt}
                  </Button>
                </p>
              )
            );
          })}
        </div>
      )}
      {onTeam && (
        <div className="bench-file">
          {editable && (
            <Button
              variant="default"
              disabled={!edited}
              loading={change.isPending}
              onClick={() => {
                change.mutate(mine);
              }}
            >
              {strings.save}
            </Button>
          )}
          {finding.next_states.map((s) => (
            <Button
              key={s}
              variant={s === "issued" || s === "settled" ? "filled" : "default"}
              color="dark"
              disabled={edited && editable}
              onClick={() => {
                change.mutate({ status: s as Status });
              }}
            >
              {s === "issued" && finding.status !== "draft" ? strings.issueAgain : ACTIONS[s]}
            </Button>
          ))}
          {edited && editable && <span className={`quiet ${css["small"] ?? ""}`}>{strings.saveBeforeYouIssueIt}</span>}
        </div>
      )}
      {finding.evidence.length > 0 && (
        <>
          <div className="bench-part">
            <h3>{strings.evidenceAsFiled}</h3>
          </div>
          <table className="plain">
            <thead>
              <tr>
                <th>{strings.value}</th>
                <th className="n">{strings.theirs}</th>
                <th className="n">{strings.ours}</th>
                <th className="n">{strings.deviation}</th>
              </tr>
            </thead>
            <tbody>
              {finding.evidence.slice(0, 12).map((c) => {
                const ours = c.role === "origin" ? (c.carried ?? c.independent) : (c.independent ?? c.carried);
                return (
                  <tr key={c.id}>
                    <td>
                      <Mark shape={shapeOf(c)} />{" "}
                      {onTeam ? (
                        <Link to={`/reviews/${reviewId}/sheet?check=${encodeURIComponent(c.id)}`}>
                          <SymbolText text={c.label} />
                        </Link>
                      ) : (
                        <SymbolText text={c.label} />
                      )}
                    </td>
                    <td className="n theirs">{c.theirs ? theirsText(c) : strings.notStated}</td>
                    <td className="n ours">{ours ? oursText(ours.value, c) : "–"}</td>
                    <td className="n off">{ours?.deviation == null ? "" : percent(ours.deviation)}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
          {finding.evidence.length > 12 && (
            <p className="quiet">
              {strings.and}
              {finding.evidence.length - 12}
              {strings.moreThatDependOnIt}
            </p>
          )}
        </>
      )}
      <div className="bench-part">
        <h3>{strings.threadHead}</h3>
      </div>
      {finding.thread.length === 0 && <p className={`quiet ${css["small2"] ?? ""}`}>{strings.noMessagesYet}</p>}
      {finding.thread.map((m) => (
        <div key={m.at} className="message">
          <p>
            <b>{m.author}</b> <span className="quiet">{moment(m.at)}</span>
          </p>
          <p className="finding-text">{m.text}</p>
        </div>
      ))}
      {role !== "reader" && (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            write.mutate();
          }}
        >
          <Textarea
            aria-label={role === "submitter" ? strings.yourAnswer : strings.writeAMessage}
            placeholder={role === "submitter" ? strings.yourAnswer : strings.writeAMessage}
            autosize
            minRows={2}
            value={message}
            onChange={(e) => {
              setMessage(e.currentTarget.value);
            }}
            maxLength={5000}
          />
          <Problems error={write.error} title={strings.theMessageWasNotSent} />
          <Button type="submit" mt={6} variant="default" disabled={!message.trim()} loading={write.isPending}>
            {role === "submitter" ? strings.answer : strings.send}
          </Button>
        </form>
      )}
    </aside>
  );
}
