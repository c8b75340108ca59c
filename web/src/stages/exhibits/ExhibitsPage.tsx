import { Button, FileButton } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { useReviewContext } from "../../review/ReviewContext";
import { answered, api, upload, type Exhibit, type Submission } from "../../shared/api/client";
import { useRefresh, useVocabulary } from "../../shared/api/queries";
import { day } from "../../shared/dates";
import { counted } from "../../shared/numbers";
import { Problems } from "../../shared/Problems";
import { CasesTable } from "./CasesTable";
import { KeepProfile } from "./KeepProfile";
import { OpenExhibit } from "./OpenExhibit";
import { pastedPictures } from "./pictures";
import { TablePreview } from "./TablePreview";
import type { TableSource } from "./useTablePreview";
import "./exhibits.css";
import { OpenParts } from "./OpenParts";
import { strings } from "./strings";
import css from "./ExhibitsPage.module.css";

/** What did they submit? Files are kept as they are; tables become values once accepted. */
export default function ExhibitsPage() {
  const { review } = useReviewContext();
  const refresh = useRefresh(review.id);
  const onTeam = review.role !== "submitter";
  const kinds = useVocabulary().data?.tables ?? [];
  const titled = (kind: string) => kinds.find((k) => k.id === kind)?.title ?? kind;
  const latest: Submission | undefined = review.submissions[0];
  const draft = latest?.status === "draft" ? latest : undefined;
  const [source, setSource] = useState<TableSource | null>(null);
  const [search, setSearch] = useSearchParams();
  const [sending, setSending] = useState<string[]>([]);
  const [over, setOver] = useState(false);
  const [outcome, setOutcome] = useState("");
  const opened = Number(search.get("exhibit")) || null;
  const owner = review.submissions.find((s) => s.exhibits.some((e) => e.id === opened));
  const open = (exhibit: number | null) => {
    setSearch(exhibit === null ? {} : { exhibit: String(exhibit) });
  };
  const accept = useMutation({
    mutationFn: (id: number) =>
      answered(api.POST("/api/submissions/{submission_id}/accept/", { params: { path: { submission_id: id } } })),
    onSuccess: refresh,
  });
  const send = useMutation({
    // one after the other: the server reads one at a time
    mutationFn: async (files: File[]) => {
      const exhibits = [];
      const refused: unknown[] = [];
      for (const file of files) {
        setSending(files.slice(files.indexOf(file)).map((f) => f.name));
        try {
          exhibits.push(await upload(review.id, file));
        } catch (error) {
          refused.push(error);
        }
      }
      setSending([]);
      await refresh();
      if (onTeam && files.length === 1 && exhibits[0]) open(exhibits[0].id);
      if (refused.length) throw refused[0];
    },
  });
  const takeOut = useMutation({
    mutationFn: (id: number) =>
      answered(api.DELETE("/api/exhibits/{exhibit_id}/", { params: { path: { exhibit_id: id } } })),
    onSuccess: refresh,
  });
  const remove = useMutation({
    mutationFn: (id: number) => answered(api.DELETE("/api/tables/{table_id}/", { params: { path: { table_id: id } } })),
    onSuccess: refresh,
  });
  const acceptAll = useMutation({
    mutationFn: (id: number) =>
      answered(api.POST("/api/submissions/{submission_id}/tables/", { params: { path: { submission_id: id } } })),
    onSuccess: async (rows) => {
      setOutcome(strings.acceptedAndLeft(rows.filter((r) => r.table).length, rows.filter((r) => !r.table).length));
      await refresh();
    },
  });
  const unread = draft ? withOpenTables(draft) : [];
  const openTables = draft ? unread.reduce((n, e) => n + openCount(draft, e), 0) : 0;
  const paste = (text: string) => {
    setSource({
      review: review.id,
      text,
      name: strings.pastedTable((draft?.exhibits.filter((e) => e.pasted).length ?? 0) + 1),
    });
  };

  // what is being read states how far it is
  const waiting = review.submissions.some((s) =>
    s.exhibits.some((e) => e.reading?.status === "queued" || e.reading?.status === "reading"),
  );
  useEffect(() => {
    if (!waiting || opened) return;
    const timer = setInterval(() => void refresh(), 900);
    return () => {
      clearInterval(timer);
    };
  }, [waiting, opened, refresh]);

  useEffect(() => {
    // paste anywhere on this screen that is not a field
    const onPaste = (e: ClipboardEvent) => {
      const target = e.target as HTMLElement | null;
      if (source || opened) return;
      const text = e.clipboardData?.getData("text/plain") ?? "";
      // cells that are copied from a workbook come as text and as a picture: the text is what they say
      const pictures = text.trim() ? [] : pastedPictures(e.clipboardData, stamp());
      if (pictures.length) {
        e.preventDefault();
        send.mutate(pictures);
        return;
      }
      if (!onTeam || target?.closest("input, textarea") || !text.trim()) return;
      e.preventDefault();
      paste(text);
    };
    document.addEventListener("paste", onPaste);
    return () => {
      document.removeEventListener("paste", onPaste);
    };
  });

  if (opened && owner)
    return (
      <main className="page exhibits">
        <OpenExhibit
          key={opened}
          review={review.id}
          submission={owner}
          exhibit={opened}
          open={owner.status === "draft" && onTeam}
          titled={titled}
          refresh={refresh}
          onClose={() => {
            open(null);
          }}
          next={unread.find((e) => e.id !== opened)}
          onNext={open}
        />
      </main>
    );

  return (
    <main
      className={"page exhibits" + (over ? " drop-here" : "")}
      onDragOver={(e) => {
        if (!e.dataTransfer.types.includes("Files")) return;
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={(e) => {
        if (!e.currentTarget.contains(e.relatedTarget as Node | null)) setOver(false);
      }}
      onDrop={(e) => {
        e.preventDefault();
        setOver(false);
        const files = [...e.dataTransfer.files];
        if (files.length) send.mutate(files);
      }}
    >
      <div className="stage-head">
        <h2 className="stage-title">{strings.exhibits}</h2>
        <span className="quiet">
          {latest
            ? [
                strings.submissionSummary(latest.label, latest.status, latest.claims),
                ...(draft ? [] : [strings.theNextUploadStartsS(latest.number + 1)]),
              ].join("; ")
            : strings.nothingSubmittedYet}
        </span>
        <span className="end">
          <FileButton
            multiple
            accept=".csv,.txt,.tsv,.log,.xlsx,.pdf,.png,.jpg,.jpeg"
            onChange={(files) => {
              if (files.length) send.mutate(files);
            }}
          >
            {(props) => (
              <Button variant="default" loading={send.isPending} {...props}>
                {strings.uploadFiles}
              </Button>
            )}
          </FileButton>
          {draft && onTeam && openTables > 0 && (
            <Button
              color="dark"
              loading={acceptAll.isPending}
              onClick={() => {
                acceptAll.mutate(draft.id);
              }}
            >
              {strings.acceptAllTablesWithoutQuestions}
            </Button>
          )}
          {draft && onTeam && (
            <Button
              variant={openTables > 0 ? "default" : "filled"}
              color="dark"
              disabled={draft.claims === 0}
              loading={accept.isPending}
              onClick={() => {
                accept.mutate(draft.id);
              }}
            >
              {strings.finalize(draft.label)}
            </Button>
          )}
        </span>
      </div>
      <Problems
        error={send.error ?? acceptAll.error ?? accept.error ?? remove.error ?? takeOut.error}
        title={send.error ? strings.notAccepted : strings.notDone}
      />
      {onTeam && (outcome || (acceptAll.isSuccess && unread.length > 0)) && (
        <p role="status" className="queue">
          {outcome}
          {unread[0] && (
            <>
              {" · "}
              <Link to={`?exhibit=${String(unread[0].id)}`}>{strings.answerThem}</Link>{" "}
              <span className="quiet">({strings.tablesWithQuestions(openTables, unread.length)})</span>
            </>
          )}
        </p>
      )}
      {sending.length > 0 && (
        <p role="status" className="quiet">
          {strings.sending}
          {sending[0]}
          {sending.length > 1 && strings.moreToSend(sending.length - 1)}…
        </p>
      )}
      {source ? (
        <TablePreview
          key={source.name + String(source.exhibit ?? "")}
          source={source}
          onClose={() => {
            setSource(null);
          }}
          onAccepted={() => {
            setSource(null);
            void refresh();
          }}
        />
      ) : (
        onTeam && (
          <div className="paste-target">
            <textarea
              aria-label={strings.pasteATable}
              placeholder={strings.pasteATableHereWith}
              value=""
              onChange={(e) => {
                if (e.currentTarget.value.trim()) paste(e.currentTarget.value);
              }}
            />
          </div>
        )
      )}
      {review.submissions.map((s: Submission) => (
        <section key={s.id}>
          <h3 className="part">
            {s.label}{" "}
            <span className={`quiet ${css["strong"] ?? ""}`}>
              {s.status === "accepted"
                ? strings.acceptedItCannotBeChanged(day(s.accepted_at ?? ""))
                : strings.draftTablesCanStillBe}
            </span>
          </h3>
          {s.exhibits.length === 0 ? (
            <p className="quiet">{strings.noExhibitsYet}</p>
          ) : (
            <table className="plain">
              <thead>
                <tr>
                  <th>{strings.exhibit}</th>
                  <th className="n">{strings.size}</th>
                  <th>{strings.sha256}</th>
                  <th>{strings.readAs}</th>
                  <th className="n">{strings.valuesColumn}</th>
                  <th />
                </tr>
              </thead>
              <tbody>
                {s.exhibits.map((e) => {
                  const tables = s.tables.filter((t) => t.exhibit === e.id);
                  return (
                    <tr key={e.id}>
                      <td>
                        {e.pasted ? (
                          e.name
                        ) : (
                          <Link to={`?exhibit=${String(e.id)}`} className="exhibit-name">
                            {e.name}
                          </Link>
                        )}{" "}
                        <a
                          className="quiet download"
                          href={`/api/exhibits/${String(e.id)}/file/`}
                          download
                          aria-label={strings.download(e.name)}
                          title={strings.downloadTheOriginalFile}
                        >
                          ↓
                        </a>
                      </td>
                      <td className="n quiet">
                        {e.size < 1024 ? `${String(e.size)} B` : strings.kb((e.size / 1024).toFixed(1))}
                      </td>
                      <td className="quiet" title={e.sha256}>
                        {e.sha256.slice(0, 12)}…
                      </td>
                      <td>
                        {tables.length ? (
                          tables.map((t) => titled(t.kind)).join(", ")
                        ) : (
                          <span className={e.reading?.status === "refused" ? "refused" : "quiet"}>{stateOf(e)}</span>
                        )}
                        {tables.length > 0 && found(e) > tables.length && (
                          <span className="quiet">
                            ; {found(e) - tables.length}
                            {strings.moreFound}
                          </span>
                        )}
                        {tables.map((t) => (
                          <OpenParts key={t.id} table={t} />
                        ))}
                      </td>
                      <td className="n">{tables.reduce((n, t) => n + t.claims, 0) || ""}</td>
                      <td className="n">
                        {s.status === "draft" && onTeam && (
                          <>
                            <Button
                              variant="subtle"
                              size="compact-xs"
                              onClick={() => {
                                if (e.pasted) setSource({ review: review.id, exhibit: e.id, name: e.name });
                                else open(e.id);
                              }}
                            >
                              {strings.read}
                            </Button>
                            {tables.length === 0 && (
                              <Button
                                variant="subtle"
                                color="gray"
                                size="compact-xs"
                                onClick={() => {
                                  takeOut.mutate(e.id);
                                }}
                              >
                                {strings.remove}
                              </Button>
                            )}
                            {tables.map((t) => (
                              <Button
                                key={t.id}
                                variant="subtle"
                                color="gray"
                                size="compact-xs"
                                onClick={() => {
                                  remove.mutate(t.id);
                                }}
                              >
                                {strings.removeTitled(titled(t.kind))}
                              </Button>
                            ))}
                          </>
                        )}
                      </td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
          )}
          {onTeam && <KeepProfile submission={s} />}
        </section>
      ))}
      {onTeam && latest && latest.cases.length > 0 && <CasesTable submission={latest} />}
      {onTeam && latest && latest.claims > 0 && (
        <p>
          <Link to="../sheet">{strings.seeItOnTheSheet}</Link>
        </p>
      )}
    </main>
  );
}

/** Time of day for the name of a pasted picture, as in 14.05.09. */
const stamp = () => new Date().toTimeString().slice(0, 8).replaceAll(":", ".");

/** Number of recognised tables of an exhibit that are not accepted. */
const openCount = (submission: Submission, e: Exhibit) =>
  (e.reading?.tables ?? []).filter(
    (t) => t.kind && !submission.tables.some((a) => a.exhibit === e.id && a.sheet === t.label),
  ).length;

/** Exhibits with such tables, in the order of the list. */
const withOpenTables = (submission: Submission) =>
  submission.exhibits.filter((e) => !e.pasted && openCount(submission, e) > 0);

/** Tables that were found in an exhibit and look like some kind. */
const found = (e: Exhibit) => (e.reading?.tables ?? []).filter((t) => t.kind).length;

/** State of an exhibit of which nothing is accepted yet. */
function stateOf(e: Exhibit): string {
  const reading = e.reading;
  if (!reading) return strings.notRead;
  if (reading.status === "queued") return strings.waitingState;
  if (reading.status === "reading") return strings.beingReadPhase(reading.phase ? `, ${reading.phase}` : "");
  if (reading.status === "read") return strings.foundNoneAcceptedYet(counted(found(e), "table"));
  return reading.message ?? "";
}
