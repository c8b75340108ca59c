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

type Status = Finding["status"];
const SEVERITY: Record<Severity, string> = {
  must: "must be answered",
  should: "should be answered",
  note: "for the record",
};
const ACTIONS: Record<string, string> = {
  draft: "Take up again",
  issued: "Issue",
  answered: "Mark as answered",
  settled: "Settle",
  withdrawn: "Withdraw",
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
          <h2 className="stage-title">Findings</h2>
          <SegmentedControl
            aria-label="Which findings"
            value={which}
            onChange={setWhich}
            data={[
              { value: "all", label: `all ${String(findings.length)}` },
              { value: "open", label: `open ${String(findings.filter((f) => OPEN.includes(f.status)).length)}` },
            ]}
          />
        </div>
        {shown.length === 0 ? (
          <p className="empty quiet">
            {onTeam ? (
              <>
                No findings {which === "open" ? "are open" : "yet"}. Select a deviation on the{" "}
                <Link to="../sheet">sheet</Link>, edit the drafted remark and file it.
              </>
            ) : (
              "No finding has been issued to you yet."
            )}
          </p>
        ) : (
          <table className="plain register">
            <thead>
              <tr>
                <th className="n">no.</th>
                <th>finding</th>
                <th>severity</th>
                <th>state</th>
                <th className="n">thread</th>
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
      // somebody was quicker: it is shown as it stands now, and what was typed is kept
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
    <aside className="bench" aria-label={`Finding ${String(finding.number)}`}>
      <p className="bench-place">
        Finding {finding.number} · {finding.status} · {finding.author}, {moment(finding.created_at)}
        {finding.submission && ` · on ${finding.submission}`}
      </p>
      {finding.origin && (
        <p className="quiet">
          Imported with the review: filed by {finding.origin.author || "somebody"} elsewhere.{" "}
          {finding.origin.differs.length > 0 && (
            <b className="off">
              Its evidence stated other numbers than the recheck here for{" "}
              <SymbolText text={finding.origin.differs.join(", ")} />; those shown are the recheck&apos;s.{" "}
            </b>
          )}
          {finding.origin.unknown.length > 0 && (
            <b className="off">
              The recheck here knows nothing of <SymbolText text={finding.origin.unknown.join(", ")} />.
            </b>
          )}
          {finding.origin.differs.length + finding.origin.unknown.length === 0 && "The recheck here says the same."}
        </p>
      )}
      {editable ? (
        <>
          <TextInput
            aria-label="Title"
            value={title}
            onChange={(e) => {
              setTitle(e.currentTarget.value);
            }}
            maxLength={200}
            mb={6}
          />
          <Textarea
            aria-label="Text"
            autosize
            minRows={4}
            value={text}
            onChange={(e) => {
              setText(e.currentTarget.value);
            }}
            maxLength={5000}
          />
          <Select
            aria-label="Severity"
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
          <p className="quiet" style={{ margin: "2px 0 8px", fontSize: 13 }}>
            {SEVERITY[finding.severity ?? "must"]}
            {finding.clause && ` · ${finding.clause}`}
          </p>
          <p className="finding-text">
            <SymbolText text={finding.text} />
          </p>
        </>
      )}
      <Problems error={change.error} title="Not changed" />
      {editable && finding.revision !== before.revision && (
        <div className="meanwhile">
          {(["title", "text"] as const).map((part) => {
            const [typed, take] = part === "title" ? [title, setTitle] : [text, setText];
            return (
              finding[part] !== before[part] &&
              finding[part] !== typed && (
                <p key={part}>
                  The {part} reads now: {finding[part]}{" "}
                  <Button
                    variant="subtle"
                    size="compact-xs"
                    onClick={() => {
                      take(finding[part]);
                    }}
                  >
                    take it
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
              Save
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
              {s === "issued" && finding.status !== "draft" ? "Issue again" : ACTIONS[s]}
            </Button>
          ))}
          {edited && editable && (
            <span className="quiet" style={{ fontSize: 12.5 }}>
              save before you issue it
            </span>
          )}
        </div>
      )}
      {finding.evidence.length > 0 && (
        <>
          <div className="bench-part">
            <h3>Evidence as filed</h3>
          </div>
          <table className="plain">
            <thead>
              <tr>
                <th>value</th>
                <th className="n">theirs</th>
                <th className="n">ours</th>
                <th className="n">theirs off by</th>
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
                    <td className="n theirs">{c.theirs ? theirsText(c) : "not stated"}</td>
                    <td className="n ours">{ours ? oursText(ours.value, c) : "–"}</td>
                    <td className="n off">{ours?.deviation == null ? "" : percent(ours.deviation)}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
          {finding.evidence.length > 12 && (
            <p className="quiet">and {finding.evidence.length - 12} more that follow from it; all are in the report</p>
          )}
        </>
      )}
      <div className="bench-part">
        <h3>Thread</h3>
      </div>
      {finding.thread.length === 0 && (
        <p className="quiet" style={{ fontSize: 13 }}>
          Nothing written yet.
        </p>
      )}
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
            aria-label={role === "submitter" ? "Your answer" : "Write to the thread"}
            placeholder={role === "submitter" ? "Your answer" : "Write to the thread"}
            autosize
            minRows={2}
            value={message}
            onChange={(e) => {
              setMessage(e.currentTarget.value);
            }}
            maxLength={5000}
          />
          <Problems error={write.error} title="Not sent" />
          <Button type="submit" mt={6} variant="default" disabled={!message.trim()} loading={write.isPending}>
            {role === "submitter" ? "Answer" : "Write"}
          </Button>
        </form>
      )}
    </aside>
  );
}
