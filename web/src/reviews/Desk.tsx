import { ActionIcon, Badge, Tooltip } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { answered, api, type DeskRow } from "../shared/api/client";
import { useEditions, useVocabulary } from "../shared/api/queries";
import { day } from "../shared/dates";
import { openFindings } from "./order";
import { SmallPlumb } from "./SmallPlumb";
import { strings } from "./strings";

/** A person's reviews, each with its state and who acts next. */
export function Desk({ rows }: { rows: DeskRow[] }) {
  const editions = useEditions();
  const vocabulary = useVocabulary();
  const client = useQueryClient();
  const archive = useMutation({
    mutationFn: (row: DeskRow) =>
      answered(
        api.POST("/api/reviews/{review_id}/visit/", {
          params: { path: { review_id: row.id } },
          body: { archived: !row.archived },
        }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: ["desk"] }),
  });
  const stages = (vocabulary.data?.stages ?? []).map((s) => s.id);
  return (
    <nav className="reviews-list" aria-label={strings.reviews}>
      {rows.map((r) => (
        <div key={r.id} className="desk-row">
          <Link to={`/reviews/${r.id}/${r.role === "submitter" || r.role === "reader" ? "findings" : "sheet"}`}>
            <SmallPlumb marks={r.plumb} stages={stages} />
            <span>
              <strong>{r.title}</strong>
              <span className="quiet">{[r.place, r.client].filter(Boolean).join(" · ")}</span>
              {r.news > 0 && (
                <span className="desk-news">
                  {strings.sinceYourVisit(r.news)}
                  {r.latest.join("; ")}
                </span>
              )}
            </span>
            <span className="quiet">
              {editions.data?.find((e) => e.id === r.edition)?.title ?? r.edition}
              <br />
              {r.submission ?? strings.nothingSubmitted}
            </span>
            <span>
              {r.next !== "" && (
                <>
                  <b className={r.next === "you" ? "off" : ""}>{strings.next[r.next]}</b>
                  <br />
                </>
              )}
              <span className="quiet">{r.next !== "" && r.days > 0 ? strings.waits(r.days) : ""}</span>
            </span>
            <span>
              <span className={openFindings(r) ? "off" : "quiet"}>{strings.openFindings(openFindings(r))}</span>
              <br />
              <span className="quiet">
                {Object.entries(r.findings)
                  .map(([severity, n]) => strings.ofSeverity(n, severity))
                  .join(", ")}
              </span>
              {r.due && <div className={r.overdue ? "limit" : "quiet"}>{strings.dueOn(day(r.due))}</div>}
            </span>
            <span className="badges">
              <Badge variant="outline" color="gray">
                {r.role}
              </Badge>
              {r.status === "closed" && (
                <Badge variant="light" color="gray">
                  {strings.closed}
                </Badge>
              )}
            </span>
          </Link>
          <Tooltip label={r.archived ? strings.bringBack : strings.putAway}>
            <ActionIcon
              variant="subtle"
              color="gray"
              aria-label={`${r.archived ? strings.bringBack : strings.putAway}: ${r.title}`}
              onClick={() => {
                archive.mutate(r);
              }}
            >
              <svg width="15" height="15" viewBox="0 0 15 15" aria-hidden fill="none" stroke="currentColor">
                <path
                  d={
                    r.archived
                      ? "M2 5h11v8H2zM7.5 11V7M5.5 9l2-2 2 2M2 5l1-3h9l1 3"
                      : "M2 5h11v8H2zM5.5 8h4M2 5l1-3h9l1 3"
                  }
                />
              </svg>
            </ActionIcon>
          </Tooltip>
        </div>
      ))}
    </nav>
  );
}
