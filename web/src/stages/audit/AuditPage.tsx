import { Button, TextInput } from "@mantine/core";
import { keepPreviousData, useInfiniteQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useReviewContext } from "../../review/ReviewContext";
import { answered, api, type Schemas } from "../../shared/api/client";
import { moment } from "../../shared/dates";
import { Problems } from "../../shared/Problems";
import { strings } from "./strings";

type Entry = Schemas["Audit"];
const PAGE = 500;
const NOTHING = { actor: "", action: "", since: "", until: "" };

/** Who did what in the review, and when. */
export default function AuditPage() {
  const { review } = useReviewContext();
  const [filter, setFilter] = useState(NOTHING);
  const given = Object.fromEntries(Object.entries(filter).filter(([, text]) => text !== ""));
  const entries = useInfiniteQuery({
    queryKey: ["audit", review.id, given],
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) =>
      answered(
        api.GET("/api/reviews/{review_id}/audit/", {
          params: {
            path: { review_id: review.id },
            query: { ...given, ...(pageParam === undefined ? {} : { before: pageParam }) },
          },
        }),
      ),
    getNextPageParam: (last: Entry[]) => (last.length < PAGE ? undefined : last.at(-1)?.id),
    placeholderData: keepPreviousData,
  });
  const shown = entries.data?.pages.flat() ?? [];
  const field = (name: keyof typeof NOTHING, label: string, type = "text") => (
    <TextInput
      size="xs"
      w={type === "date" ? 150 : 180}
      type={type}
      aria-label={label}
      placeholder={label}
      title={label}
      value={filter[name]}
      onChange={(e) => {
        const { value } = e.currentTarget;
        setFilter((f) => ({ ...f, [name]: value }));
      }}
    />
  );
  const query = new URLSearchParams(given).toString();
  return (
    <main className="page">
      <div className="stage-head">
        <h2 className="stage-title">{strings.auditTrail}</h2>
        {field("actor", strings.who)}
        {field("action", strings.what)}
        {field("since", strings.since, "date")}
        {field("until", strings.until, "date")}
        <span className="end">
          <Button
            component="a"
            variant="default"
            size="xs"
            href={`/api/reviews/${review.id}/audit/file/${query && `?${query}`}`}
          >
            {strings.asCsv}
          </Button>
        </span>
      </div>
      <Problems error={entries.error} title={strings.couldNotBeLoaded} />
      {entries.data && shown.length === 0 ? (
        <p className="empty quiet">{strings.nothing}</p>
      ) : (
        <table className="plain">
          <thead>
            <tr>
              <th>{strings.when}</th>
              <th>{strings.who}</th>
              <th>{strings.what}</th>
              <th>{strings.detail}</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((e) => (
              <tr key={e.id}>
                <td>{moment(e.at)}</td>
                <td>{e.actor}</td>
                <td>{e.action}</td>
                <td className="quiet">{detailOf(e.detail)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {entries.hasNextPage && (
        <Button
          variant="default"
          mt="sm"
          loading={entries.isFetchingNextPage}
          onClick={() => void entries.fetchNextPage()}
        >
          {strings.earlier}
        </Button>
      )}
    </main>
  );
}

const MOST = 160;

/** The detail of an entry in a line. */
function detailOf(detail: unknown): string {
  const parts = Object.entries((detail ?? {}) as Record<string, unknown>).map(
    ([name, value]) => `${name} ${typeof value === "string" ? value : JSON.stringify(value)}`,
  );
  const line = parts.join(" · ");
  return line.length > MOST ? `${line.slice(0, MOST)}…` : line;
}
