import { Button, Progress, TextInput } from "@mantine/core";
import { useHotkeys, useViewportSize } from "@mantine/hooks";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useSearchParams } from "react-router";
import { answered, api, type Reading, type Submission } from "../../shared/api/client";
import { exhibitQuery } from "../../shared/api/queries";
import { counted } from "../../shared/numbers";
import { Problems } from "../../shared/Problems";
import { PdfPage, Thumbnail } from "./PdfPage";
import { columnOf, pageOf } from "./places";
import { TablePreview, type TableSource } from "./TablePreview";
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
}

const PAGE_WIDTH = 560;

/** A file that is assessed: its pages where it has some, its tables one after the other, and what became of each. */
export function OpenExhibit({ review, submission, exhibit, open, titled, refresh, onClose }: Props) {
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
      setMessage(strings.accepted(done, left.length));
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
  const acceptedText = now && (now.claims > 0 ? strings.accepted2(counted(now.claims, "value")) : "accepted.");

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
    <section className="open-exhibit" aria-label={strings.exhibit(file.name)}>
      <div className="stage-head">
        <Button variant="default" onClick={onClose}>
          {strings.allExhibits}
        </Button>
        <b>{file.name}</b>
        <span className="quiet">
          {isPdf && `page ${String(page)} of ${String(reading?.pages ?? 0)}`}
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
        </span>
      </div>
      <Problems error={read.error ?? stop.error ?? all.error ?? remove.error} title={strings.notDone} />
      {busy && (
        <div className="reading-now" role="status">
          <span>{reading.status === "queued" ? strings.waitingToBeRead : strings.reading2(reading.phase)}</span>
          <Progress value={100 * (reading.share ?? 0)} animated w={240} aria-label={strings.howFarTheReadingIs} />
          <Button
            variant="subtle"
            size="compact-sm"
            onClick={() => {
              stop.mutate();
            }}
          >
            {strings.stop}
          </Button>
        </div>
      )}
      {reading && (reading.status === "refused" || reading.status === "stopped") && (
        <div className="problem" role="alert">
          <p style={{ fontWeight: 600 }}>{strings.isStoredUnchangedNothingWas(file.name)}</p>
          <p>
            {reading.message}. <span className="quiet">{reading.remedy}</span>
          </p>
        </div>
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
            <div className="accepted-table">
              <p>
                <b>{titled(now.kind)}</b> <span className="quiet">{strings.from(chosen)}</span>: {acceptedText}
              </p>
              {open && (
                <p>
                  <Button
                    variant="default"
                    size="compact-sm"
                    onClick={() => {
                      setAgain({
                        review,
                        exhibit,
                        name: chosen,
                        sheet: chosen,
                        replaces: now.id,
                        kind: now.kind,
                        reading: answersOf(now.reading),
                      });
                    }}
                  >
                    {strings.changeTheAnswers}
                  </Button>{" "}
                  <Button
                    variant="subtle"
                    color="gray"
                    size="compact-sm"
                    onClick={() => {
                      remove.mutate(now.id);
                    }}
                  >
                    {strings.removeIt}
                  </Button>
                </p>
              )}
              {!isPdf && (
                <TablePreview
                  key={chosen}
                  seen
                  source={{
                    review,
                    exhibit,
                    name: chosen,
                    sheet: chosen,
                    kind: now.kind,
                    reading: answersOf(now.reading),
                  }}
                  framed={cell && { row: cell.row - 1, column: columnOf(cell.column) }}
                  onClose={onClose}
                  onAccepted={() => undefined}
                />
              )}
            </div>
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
          {listed.length > 0 && (
            <>
              <h3 className="part">
                {strings.tablesInThisFile}
                <span className="quiet keys">
                  <span className="key">[</span> <span className="key">]</span>
                  {strings.previousNext}
                </span>
              </h3>
              <ul className="read-in">
                {listed.map((t) => {
                  const its = of(t.label);
                  return (
                    <li key={t.label} className={t.label === chosen ? "now" : ""}>
                      <button
                        type="button"
                        onClick={() => {
                          look(t.label);
                        }}
                      >
                        <i className={its ? "done" : t.kind ? "open" : "none"} aria-hidden />
                        <span className="at">{t.page === null ? t.label : `p. ${String(t.page)}`}</span>
                        <b>{titled(its?.kind ?? t.kind) || strings.noKindOfTable}</b>
                        <span className="quiet">
                          {its
                            ? its.claims > 0
                              ? counted(its.claims, "value")
                              : strings.accepted3
                            : t.kind
                              ? strings.withQuestions(counted(t.rows, "row"))
                              : t.title}
                        </span>
                      </button>
                    </li>
                  );
                })}
              </ul>
            </>
          )}
        </div>
      </div>
    </section>
  );
}

/** What of a stored reading are answers; columns and units are recognised again where they were not set. */
function answersOf(stored: Record<string, unknown>): Reading {
  const { cases, numbers, both, stories, left_out, taken_in, columns, units, order } = stored as Reading;
  return { cases, numbers, both, stories, left_out, taken_in, columns, units, order };
}

/** A value that the page shows and nobody can read but by eye. */
function TypeValue({ onTyped }: { onTyped: (text: string) => void }) {
  const [item, setItem] = useState("");
  const [value, setValue] = useState("");
  return (
    <form
      className="type-value"
      onSubmit={(e) => {
        e.preventDefault();
        if (item.trim() && value.trim()) onTyped(`Item\tValue\n${item.trim()}\t${value.trim()}\n`);
      }}
    >
      <p>
        <b>{strings.aValueAtThisPlace}</b> <span className="quiet">{strings.isStoredWithItsPosition}</span>
      </p>
      <TextInput
        label={strings.quantityByItsSymbolOr}
        placeholder="T_a X"
        data-autofocus
        value={item}
        onChange={(e) => {
          setItem(e.currentTarget.value);
        }}
      />
      <TextInput
        label={strings.theValueAsPrintedWith}
        placeholder="0.62 s"
        value={value}
        onChange={(e) => {
          setValue(e.currentTarget.value);
        }}
      />
      <Button type="submit" color="dark" disabled={!item.trim() || !value.trim()}>
        {strings.readIt}
      </Button>
    </form>
  );
}
