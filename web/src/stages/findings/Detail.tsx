import { Button, Select, Textarea, TextInput } from "@mantine/core";
import { notifications } from "@mantine/notifications";
import { useMutation } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { useReviewContext } from "../../review/ReviewContext";
import { answered, api, ApiProblem, type Finding, type Severity } from "../../shared/api/client";
import { useRefresh } from "../../shared/api/queries";
import { moment } from "../../shared/dates";
import { SymbolText } from "../../shared/Symbol";
import { Problems } from "../../shared/Problems";
import { useDraft } from "../../shared/useDraft";
import { Attachments } from "./Attachments";
import { Evidence } from "./Evidence";
import { FindingText } from "./FindingText";
import { known } from "./register";
import { ACTIONS, SEVERITY } from "./words";
import { strings } from "./strings";
import css from "./FindingsPage.module.css";

type Status = Finding["status"];

/** What of a finding can be changed. */
type Change = Partial<Pick<Finding, "title" | "text" | "severity" | "status" | "due">> & { assignee?: number | null };

/** A finding with its evidence, thread and states. */
export function Detail({ finding, reviewId, role }: { finding: Finding; reviewId: string; role: string }) {
  const refresh = useRefresh(reviewId);
  const { recheck, findings } = useReviewContext();
  const names = useMemo(() => known(recheck?.checks ?? [], findings), [recheck, findings]);
  const onTeam = role === "lead" || role === "reviewer";
  const editable = onTeam && finding.status === "draft";
  const [title, setTitle, forgetTitle] = useDraft(`finding ${String(finding.id)} title`, finding.title);
  const [text, setText, forgetText] = useDraft(`finding ${String(finding.id)} text`, finding.text);
  const [severity, setSeverity] = useState<Severity>(finding.severity ?? "must");
  const [message, setMessage] = useDraft(`finding ${String(finding.id)} message`, "");
  const [before, setBefore] = useState(finding);
  const path = { params: { path: { finding_id: finding.id } } };
  const change = useMutation({
    mutationFn: (body: Change) =>
      answered(
        api.PATCH("/api/findings/{finding_id}/", {
          params: { ...path.params, header: { "If-Match": `"${String(finding.revision)}"` } },
          body,
        }),
      ),
    onSuccess: async (changed, body) => {
      setBefore(changed);
      if (body.title !== undefined) forgetTitle();
      if (body.text !== undefined) forgetText();
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
            <FindingText text={finding.text} names={names} />
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
      {onTeam && <AtWork finding={finding} change={change.mutate} />}
      <Evidence finding={finding} reviewId={reviewId} onTeam={onTeam} />
      <Attachments finding={finding} onTeam={onTeam} />
      <div className="bench-part">
        <h3>{strings.threadHead}</h3>
      </div>
      {finding.thread.length === 0 && <p className={`quiet ${css["small2"] ?? ""}`}>{strings.noMessagesYet}</p>}
      {finding.thread.map((m) => (
        <div key={m.at} className="message">
          <p>
            <b>{m.author}</b> <span className="quiet">{moment(m.at)}</span>
          </p>
          <p className="finding-text">
            <FindingText text={m.text} names={names} />
          </p>
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

/** Who acts next on a finding and until when, and what is done with its text. */
function AtWork({ finding, change }: { finding: Finding; change: (change: Change) => void }) {
  const { review } = useReviewContext();
  const take = useMutation({
    mutationFn: () =>
      answered(api.POST("/api/findings/{finding_id}/remark/", { params: { path: { finding_id: finding.id } } })),
    onSuccess: () => {
      notifications.show({ message: strings.inTheLibrary, color: "teal" });
    },
  });
  return (
    <>
      <div className="bench-file">
        <Select
          aria-label={strings.assignee}
          placeholder={strings.nobodyYet}
          size="xs"
          w={170}
          clearable
          value={finding.assignee ? String(finding.assignee.id) : null}
          data={review.team.filter((m) => m.active).map((m) => ({ value: String(m.id), label: m.name }))}
          onChange={(v) => {
            change({ assignee: v === null ? null : Number(v) });
          }}
        />
        <TextInput
          aria-label={strings.due}
          title={strings.due}
          type="date"
          size="xs"
          value={finding.due ?? ""}
          onChange={(e) => {
            change({ due: e.currentTarget.value || null });
          }}
        />
        <Button
          variant="subtle"
          size="compact-xs"
          loading={take.isPending}
          onClick={() => {
            take.mutate();
          }}
        >
          {strings.toTheLibrary}
        </Button>
      </div>
      {finding.merged_into != null && <p className="quiet">{strings.mergedInto(finding.merged_into)}</p>}
      <Problems error={take.error} title={strings.notInTheLibrary} />
    </>
  );
}
