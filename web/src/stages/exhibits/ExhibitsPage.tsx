import { Button, FileButton } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import { useReviewContext } from "../../review/ReviewContext";
import { answered, api, upload, type Submission } from "../../shared/api/client";
import { useRefresh, useVocabulary } from "../../shared/api/queries";
import { day } from "../../shared/dates";
import { Problems } from "../../shared/Problems";
import { CasesTable } from "./CasesTable";
import { TablePreview, type TableSource } from "./TablePreview";
import "./exhibits.css";

const PASTE_HERE =
  "Paste a table here, with its headings: parameters, stories, weight make-up, cases, base reactions, story forces, " +
  "drifts, displacements, combinations, modes, spectrum points.\nAnywhere on this page will do.";

/** What did they hand in? Files are kept as they are; tables become values once accepted. */
export default function ExhibitsPage() {
  const { review } = useReviewContext();
  const refresh = useRefresh(review.id);
  const onTeam = review.role !== "submitter";
  const kinds = useVocabulary().data?.tables ?? [];
  const titled = (kind: string) => kinds.find((k) => k.id === kind)?.title ?? kind;
  const latest: Submission | undefined = review.submissions[0];
  const draft = latest?.status === "draft" ? latest : undefined;
  const [source, setSource] = useState<TableSource | null>(null);
  const accept = useMutation({
    mutationFn: (id: number) =>
      answered(api.POST("/api/submissions/{submission_id}/accept/", { params: { path: { submission_id: id } } })),
    onSuccess: refresh,
  });
  const send = useMutation({
    mutationFn: (file: File) => upload(review.id, file),
    onSuccess: async (exhibit) => {
      await refresh();
      if (onTeam) setSource({ review: review.id, exhibit: exhibit.id, name: exhibit.name });
    },
  });
  const remove = useMutation({
    mutationFn: (id: number) => answered(api.DELETE("/api/tables/{table_id}/", { params: { path: { table_id: id } } })),
    onSuccess: refresh,
  });
  const paste = (text: string) => {
    setSource({
      review: review.id,
      text,
      name: `pasted table ${String((draft?.exhibits.filter((e) => e.pasted).length ?? 0) + 1)}`,
    });
  };

  useEffect(() => {
    // paste anywhere on this screen that isn't a field
    const onPaste = (e: ClipboardEvent) => {
      const target = e.target as HTMLElement | null;
      const text = e.clipboardData?.getData("text/plain") ?? "";
      if (!onTeam || source || target?.closest("input, textarea") || !text.trim()) return;
      e.preventDefault();
      paste(text);
    };
    document.addEventListener("paste", onPaste);
    return () => {
      document.removeEventListener("paste", onPaste);
    };
  });

  return (
    <main className="page exhibits">
      <div className="stage-head">
        <h2 className="stage-title">Exhibits</h2>
        <span className="quiet">
          {latest
            ? [
                `${latest.label}, ${latest.status}, ${String(latest.claims)} values`,
                ...(draft ? [] : [`what is handed in next opens S${String(latest.number + 1)}`]),
              ].join("; ")
            : "nothing handed in yet"}
        </span>
        <span className="end">
          <FileButton
            accept=".csv,.txt,.tsv,.xlsx,.pdf"
            onChange={(f) => {
              if (f) send.mutate(f);
            }}
          >
            {(props) => (
              <Button variant="default" loading={send.isPending} {...props}>
                Upload a file
              </Button>
            )}
          </FileButton>
          {draft && onTeam && (
            <Button
              color="dark"
              disabled={draft.claims === 0}
              loading={accept.isPending}
              onClick={() => {
                accept.mutate(draft.id);
              }}
            >
              Accept {draft.label} for good
            </Button>
          )}
        </span>
      </div>
      <Problems
        error={send.error ?? accept.error ?? remove.error}
        title={send.error ? "Not taken; nothing was saved" : "Not done"}
      />
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
              aria-label="Paste a table"
              placeholder={PASTE_HERE}
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
            <span className="quiet" style={{ fontWeight: 400 }}>
              {s.status === "accepted"
                ? `accepted ${day(s.accepted_at ?? "")}, can't be changed`
                : "draft: tables can be taken out again"}
            </span>
          </h3>
          {s.exhibits.length === 0 ? (
            <p className="quiet">No exhibits yet.</p>
          ) : (
            <table className="plain">
              <thead>
                <tr>
                  <th>exhibit</th>
                  <th className="n">size</th>
                  <th>SHA-256</th>
                  <th>read as</th>
                  <th className="n">values</th>
                  <th />
                </tr>
              </thead>
              <tbody>
                {s.exhibits.map((e) => {
                  const tables = s.tables.filter((t) => t.exhibit === e.id);
                  return (
                    <tr key={e.id}>
                      <td>
                        <a href={`/api/exhibits/${String(e.id)}/file/`} download>
                          {e.name}
                        </a>
                      </td>
                      <td className="n quiet">
                        {e.size < 1024 ? `${String(e.size)} B` : `${(e.size / 1024).toFixed(1)} kB`}
                      </td>
                      <td className="quiet" title={e.sha256}>
                        {e.sha256.slice(0, 12)}…
                      </td>
                      <td>
                        {tables.length ? (
                          tables.map((t) => titled(t.kind)).join(", ")
                        ) : (
                          <span className="quiet">not read</span>
                        )}
                      </td>
                      <td className="n">{tables.reduce((n, t) => n + t.claims, 0) || ""}</td>
                      <td className="n">
                        {s.status === "draft" && onTeam && (
                          <>
                            <Button
                              variant="subtle"
                              size="compact-xs"
                              onClick={() => {
                                setSource({ review: review.id, exhibit: e.id, name: e.name });
                              }}
                            >
                              read
                            </Button>
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
                                take out {titled(t.kind)}
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
        </section>
      ))}
      {onTeam && latest && latest.cases.length > 0 && <CasesTable submission={latest} />}
      {onTeam && latest && latest.claims > 0 && (
        <p>
          <Link to="../sheet">See it on the sheet</Link>
        </p>
      )}
    </main>
  );
}
