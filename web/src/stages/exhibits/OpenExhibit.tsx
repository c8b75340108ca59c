import { Button } from "@mantine/core";
import { useHotkeys, useViewportSize } from "@mantine/hooks";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useSearchParams } from "react-router";
import { answered, api, type Submission } from "../../shared/api/client";
import { exhibitQuery } from "../../shared/api/queries";
import { counted } from "../../shared/numbers";
import { Problems } from "../../shared/Problems";
import { AcceptedTable } from "./AcceptedTable";
import { PdfPage, Thumbnail } from "./PdfPage";
import { columnOf, pageOf } from "./places";
import { ReadingStatus } from "./ReadingStatus";
import { TableList } from "./TableList";
import { TablePreview } from "./TablePreview";
import type { TableSource } from "./useTablePreview";
import { TypeValue } from "./TypeValue";
import { strings } from "./strings";

interface Props {
  review: string;
  submission: Submission;
  exhibit: number;
  /** whether tables can be accepted and removed */
  open: boolean;
  titled: (kind: string) => string;
  refresh: () => Promise<unknown>;
  onClose: () => void;
  /** the next file with tables that are not accepted, and its name */
  next: { id: number; name: string } | undefined;
  onNext: (exhibit: number) => void;
}

const PAGE_WIDTH = 560;

/** A file that is assessed: its pages where it has some, its tables one after the other, and what became of each. */
export function OpenExhibit({ review, submission, exhibit, open, titled, refresh, onClose, next, onNext }: Props) {
  const [search, setSearch] = useSearchParams();
  const client = useQueryClient();
  const wide = useViewportSize().width;
  const detail = useQuery(exhibitQuery(exhibit));
  const [again, setAgain] = useState<TableSource | null>(null);
  const [typed, setTyped] = useState<{ label: string; text: string } | null>(null);
  const [message, setMessage] = useState("");
  const path = { params: { path: { exhibit_id: exhibit } } };
  const changed = async () => {
    await refresh();
    await client.invalidateQueries({ queryKey: ["page", exhibit] });
    await client.invalidateQueries({ queryKey: ["exhibit", exhibit] });
  };
  const read = useMutation({
    mutationFn: () => answered(api.POST("/api/exhibits/{exhibit_id}/read/", path)),
    onSuccess: changed,
  });
  const stop = useMutation({
    mutationFn: () => answered(api.DELETE("/api/exhibits/{exhibit_id}/read/", path)),
    onSuccess: changed,
  });
  const all = useMutation({
    mutationFn: () => answered(api.POST("/api/exhibits/{exhibit_id}/tables/", path)),
    onSuccess: async (rows) => {
      const left = rows.filter((r) => !r.table);
      const done = rows.length - left.length;
      setMessage(strings.acceptedAndLeft(done, left.length));
      await changed();
      if (left[0]) look(left[0].label);
    },
  });
  const remove = useMutation({
    mutationFn: (id: number) => answered(api.DELETE("/api/tables/{table_id}/", { params: { path: { table_id: id } } })),
    onSuccess: changed,
  });

  const file = detail.data;
  const reading = file?.reading ?? null;
  const tables = reading?.tables ?? [];
  const accepted = submission.tables.filter((t) => t.exhibit === exhibit);
  const sheet = search.get("sheet") ?? "";
  const isPdf = (reading?.pages ?? 0) > 0;
  const page = Number(search.get("page")) || (pageOf(sheet) ?? tables[0]?.page ?? 1);
  const row = Number(search.get("row"));
  const cell = row ? { row, column: search.get("column") ?? "A" } : undefined;
  const of = (label: string) => accepted.find((t) => t.sheet === label);
  const chosen = sheet || (isPdf ? "" : (tables.find((t) => !of(t.label))?.label ?? tables[0]?.label ?? ""));
  const now = of(chosen);

  const look = (label: string, onPage?: number) => {
    setAgain(null);
    setTyped(null);
    setSearch(
      (old) => {
        const next = new URLSearchParams(old);
        next.set("sheet", label);
        next.delete("row");
        next.delete("column");
        const its = onPage ?? pageOf(label);
        if (its) next.set("page", String(its));
        return next;
      },
      { replace: true },
    );
  };
  const turn = (to: number) => {
    if (to < 1 || to > (reading?.pages ?? 0)) return;
    setSearch(
      (old) => {
        const next = new URLSearchParams(old);
        next.set("page", String(to));
        for (const part of ["sheet", "row", "column"]) next.delete(part);
        return next;
      },
      { replace: true },
    );
  };
  const step = (by: number) => {
    const at = tables.findIndex((t) => t.label === chosen);
    const next = tables[(at + by + tables.length) % tables.length];
    if (next) look(next.label);
  };
  useHotkeys([
    [
      "]",
      () => {
        step(1);
      },
    ],
    [
      "[",
      () => {
        step(-1);
      },
    ],
    [
      "PageDown",
      () => {
        turn(page + 1);
      },
    ],
    [
      "PageUp",
      () => {
        turn(page - 1);
      },
    ],
  ]);

  if (!file) return detail.error ? <Problems error={detail.error} /> : <p className="quiet">{strings.opening}</p>;
  const busy = reading?.status === "queued" || reading?.status === "reading";
  const left = tables.filter((t) => t.kind && !of(t.label));
  const nextOpen = () => {
    const at = tables.findIndex((t) => t.label === chosen);
    // what was pointed at on a page stays in sight
    if (at < 0) return;
    const rest = [...tables.slice(at + 1), ...tables.slice(0, at)].find((t) => t.kind && !of(t.label));
    if (rest) look(rest.label);
    else if (next) onNext(next.id);
  };
  // what was pointed at on pages is next to what was found
  const pointed = accepted
    .filter((a) => !tables.some((t) => t.label === a.sheet))
    .map((a) => ({ label: a.sheet, page: pageOf(a.sheet), kind: a.kind, rows: 0, title: "" }));
  const listed = [...tables, ...pointed].sort((a, b) => (a.page ?? 0) - (b.page ?? 0));
  const source: TableSource | null = !chosen
    ? null
    : { review, exhibit, name: chosen, sheet: chosen, ...(typed?.label === chosen && { text: typed.text }) };
  const beside = isPdf && wide > 1150;
  return (
    <section className="open-exhibit" aria-label={strings.exhibitCalled(file.name)}>
      <div className="stage-head">
        <Button variant="default" onClick={onClose}>
          {strings.allExhibits}
        </Button>
        <b>{file.name}</b>
        <span className="quiet">
          {isPdf && strings.pageOf(page, reading?.pages ?? 0)}
          {tables.length > 0 && strings.found(isPdf ? ", " : "", counted(tables.length, "table"))}
        </span>
        {message && <span role="status">{message}</span>}
        <span className="end">
          {!busy && reading?.status !== "read" && (
            <Button
              variant="default"
              loading={read.isPending}
              onClick={() => {
                read.mutate();
              }}
            >
              {reading ? strings.readItAgain : strings.readIt}
            </Button>
          )}
          {open && left.length > 1 && (
            <Button
              color="dark"
              loading={all.isPending}
              onClick={() => {
                all.mutate();
              }}
            >
              {strings.acceptAllTablesWithoutQuestions}
            </Button>
          )}
          {open && next && left.length === 0 && (
            <Button
              color="dark"
              onClick={() => {
                onNext(next.id);
              }}
            >
              {strings.nextFile(next.name)}
            </Button>
          )}
        </span>
      </div>
      <Problems error={read.error ?? stop.error ?? all.error ?? remove.error} title={strings.notDone} />
      {reading && (
        <ReadingStatus
          name={file.name}
          reading={reading}
          onStop={() => {
            stop.mutate();
          }}
        />
      )}
      <div className={"exhibit-panes" + (beside ? " beside" : "")}>
        {isPdf && (
          <div className="pdf-pane">
            <div className="thumbnails" aria-label={strings.pages}>
              {Array.from({ length: reading?.pages ?? 0 }, (_, i) => (
                <Thumbnail
                  key={i}
                  exhibit={exhibit}
                  page={i + 1}
                  now={i + 1 === page}
                  count={tables.filter((t) => t.page === i + 1).length}
                  onOpen={() => {
                    turn(i + 1);
                  }}
                />
              ))}
            </div>
            <PdfPage
              key={page}
              exhibit={exhibit}
              page={page}
              width={Math.min(PAGE_WIDTH, wide - 180)}
              sheet={chosen}
              cell={cell}
              titled={titled}
              onTable={(label) => {
                const first = tables.find((t) => t.label.startsWith(label));
                look(first?.label ?? label, page);
              }}
              onRegion={
                open
                  ? (label) => {
                      look(label, page);
                    }
                  : undefined
              }
              onPin={
                open
                  ? (label) => {
                      look(label, page);
                      setTyped({ label, text: "" });
                    }
                  : undefined
              }
            />
          </div>
        )}
        <div className="reading-pane">
          {chosen.includes(" pin ") && !now && !(typed?.label === chosen && typed.text) ? (
            <TypeValue
              onTyped={(text) => {
                setTyped({ label: chosen, text });
              }}
            />
          ) : now && !again ? (
            <AcceptedTable
              review={review}
              exhibit={exhibit}
              table={now}
              label={chosen}
              title={titled(now.kind)}
              editable={open}
              preview={!isPdf}
              framed={cell && { row: cell.row - 1, column: columnOf(cell.column) }}
              onAgain={setAgain}
              onRemove={() => {
                remove.mutate(now.id);
              }}
              onClose={onClose}
            />
          ) : (again ?? source) && reading?.status === "read" && open ? (
            <TablePreview
              key={chosen + String(again?.replaces ?? "") + (typed?.text ?? "")}
              source={again ?? (source as TableSource)}
              framed={cell && { row: cell.row - 1, column: columnOf(cell.column) }}
              onClose={() => {
                if (again) setAgain(null);
                else onClose();
              }}
              onAccepted={() => {
                void changed().then(() => {
                  setAgain(null);
                  setTyped(null);
                  nextOpen();
                });
              }}
            />
          ) : (
            reading?.status === "read" && (
              <p className="quiet">
                {tables.length === 0 && strings.noTablesWereFoundIn}
                {isPdf && (open ? strings.selectATableDragOver : strings.selectAPage)}
              </p>
            )
          )}
          <TableList tables={listed} acceptedOf={of} chosen={chosen} titled={titled} onChoose={look} />
        </div>
      </div>
    </section>
  );
}
