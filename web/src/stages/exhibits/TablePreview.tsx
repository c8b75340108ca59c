import { Button, Checkbox, Select } from "@mantine/core";
import { useHotkeys } from "@mantine/hooks";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { answered, api, type Reading, type ReadTable, type TableRead } from "../../shared/api/client";
import { tableQuery, useVocabulary } from "../../shared/api/queries";
import { counted } from "../../shared/numbers";
import { Problems } from "../../shared/Problems";
import { Questions } from "./Questions";
import { asked, letters, withAnswer, withRow } from "./reading";
import { strings } from "./strings";

export interface TableSource {
  review: string;
  name: string;
  text?: string;
  exhibit?: number;
  /** the table of the exhibit, where it is chosen already */
  sheet?: string;
  /** the table as it was accepted before, to be read with other answers */
  replaces?: number;
  reading?: Reading;
  kind?: string;
}

interface Props {
  source: TableSource;
  onClose: () => void;
  onAccepted: () => void;
  /** a cell that is assessed, from 0, on its sheet */
  framed?: { row: number; column: number };
  /** whether it is only assessed */
  seen?: boolean;
}

/** A table as it is understood, to be corrected by pointing at columns; problems are in their cells. */
export function TablePreview({ source, onClose, onAccepted, framed, seen = false }: Props) {
  const [sheet, setSheet] = useState(source.sheet ?? "");
  const [kind, setKind] = useState(source.kind ?? "");
  const [reading, setReadingTo] = useState<Reading | null>(source.reading ?? null);
  const [before, setBefore] = useState<(Reading | null)[]>([]);
  const cells = useRef<HTMLDivElement>(null);
  const setReading = (next: Reading | null) => {
    setBefore((b) => [...b, reading]);
    setReadingTo(next);
  };
  const undo = () => {
    if (before.length === 0) return;
    setReadingTo(before[before.length - 1] ?? null);
    setBefore(before.slice(0, -1));
  };
  const path = { params: { path: { review_id: source.review } } };
  const body: ReadTable = {
    ...(source.exhibit === undefined ? { name: source.name } : { exhibit: source.exhibit }),
    ...(source.text !== undefined && { text: source.text }),
    ...(sheet && { sheet }),
    ...(kind && { kind }),
    reading,
  };
  const read = useQuery(tableQuery(source.review, body));
  const kinds = useVocabulary().data?.tables ?? [];
  const accept = useMutation({
    mutationFn: () =>
      answered(
        api.POST("/api/reviews/{review_id}/tables/", {
          ...path,
          body: {
            ...body,
            kind: read.data?.kind ?? kind,
            ...(source.replaces !== undefined && { replaces: source.replaces }),
          },
        }),
      ),
    onSuccess: onAccepted,
  });
  const ready =
    read.data !== undefined && !read.data.problems.some((p) => p.holds_up) && read.data.claims + read.data.cases > 0;
  const there = read.data !== undefined;
  useEffect(() => {
    if (there) cells.current?.querySelector(".framed")?.scrollIntoView({ block: "center" });
  }, [there]);
  useHotkeys(
    [
      [
        "mod+Enter",
        () => {
          if (ready) accept.mutate();
        },
      ],
      ["mod+Z", undo],
      ["Escape", onClose],
    ],
    [],
  );

  if (read.error)
    return (
      <div className="preview">
        <Problems
          error={read.error}
          title={
            source.exhibit === undefined
              ? strings.cannotBeReadNothingWas(source.name)
              : strings.isStoredUnchangedNoTable(source.name)
          }
        />
        <Button variant="default" onClick={onClose}>
          {strings.back}
        </Button>
      </div>
    );
  if (!read.data) return <p className="quiet">{strings.reading}</p>;
  const table: TableRead = read.data;
  const now = table.reading;
  const give = (sets: Partial<Reading>) => {
    setReading(withAnswer(reading, sets));
  };
  const assigned = (index: number) => Object.entries(now.columns ?? {}).find(([, i]) => i === index)?.[0] ?? null;
  const atCell = (row: number, column: number) =>
    table.problems.find((p) => p.row === row && (p.column === column || p.column === null));
  const asksFor = (pattern: RegExp) => table.problems.some((p) => pattern.test(p.message));
  const show = (row: number) => {
    cells.current?.querySelector(`[data-row="${String(row)}"]`)?.scrollIntoView({ block: "center" });
  };
  const besides = new Map(table.beside.map((b) => [`${String(b.row)} ${String(b.column)}`, b.text]));
  const titled = (id: string) => kinds.find((k) => k.id === id)?.title ?? id;
  const width = table.rows[0]?.length ?? 0;
  const [down = 0, right = 0] = table.shift;
  const cases = Object.entries(now.cases ?? {});
  const unclear = [
    ...new Set(
      table.problems
        .map((p) => /^the direction of case '(.+)' is not clear/.exec(p.message)?.[1])
        .filter((c) => c !== undefined),
    ),
  ];
  return (
    <section className="preview" aria-label={strings.table(source.name)}>
      {!seen && (
        <>
          <div className="stage-head">
            <b>{source.name}</b>
            <Select
              aria-label={strings.whatKindOfTable}
              w={180}
              allowDeselect={false}
              value={table.kind}
              data={kinds.map((k) => ({ value: k.id, label: k.title }))}
              onChange={(v) => {
                setReading(null);
                setKind(v ?? "");
              }}
            />
            {source.sheet === undefined && table.sheets.length > 1 && (
              <Select
                aria-label={strings.sheet}
                w={160}
                allowDeselect={false}
                value={table.sheet}
                data={table.sheets}
                onChange={(v) => {
                  setReading(null);
                  setSheet(v ?? "");
                }}
              />
            )}
            {table.kind === "stories" && (
              <Select
                aria-label={strings.orderOfTheStories}
                w={170}
                allowDeselect={false}
                placeholder={strings.whichIsTheLowest}
                value={asksFor(/^it is not clear which of the stories is the lowest/) ? null : now.order || "bottom_up"}
                data={[
                  { value: "top_down", label: strings.topStoryFirst },
                  { value: "bottom_up", label: strings.bottomStoryFirst },
                ]}
                onChange={(v) => {
                  give({ order: v ?? "" });
                }}
              />
            )}
            {(now.numbers || asksFor(/^it is not clear how the numbers are written/)) && (
              <Select
                aria-label={strings.howDecimalsAreWritten}
                w={170}
                placeholder={strings.howAreDecimalsWritten}
                value={now.numbers || null}
                data={[
                  { value: "point", label: strings.asIn12345 },
                  { value: "comma", label: strings.asIn123452 },
                ]}
                onChange={(v) => {
                  give({ numbers: v ?? "" });
                }}
              />
            )}
            {table.kind === "parameters" && (
              <Checkbox
                label={strings.valuesWithoutADirectionApply}
                checked={now.both ?? false}
                onChange={(e) => {
                  give({ both: e.currentTarget.checked });
                }}
              />
            )}
            {[...cases.map(([name, d]) => ({ name, d: d })), ...unclear.map((name) => ({ name, d: null }))].map(
              ({ name, d }) => (
                <label key={name} className="case">
                  {strings.caseWord2}
                  <b>{name}</b>
                  {strings.is}
                  <Select
                    aria-label={strings.directionOfCase(name)}
                    w={64}
                    value={d}
                    data={["X", "Y"]}
                    onChange={(v) => {
                      if (v) give({ cases: { [name]: v as "X" } });
                    }}
                  />
                </label>
              ),
            )}
            <span className="end">
              {before.length > 0 && (
                <Button variant="subtle" color="gray" onClick={undo} title="Ctrl+Z">
                  {strings.undo}
                </Button>
              )}
              <Button variant="default" onClick={onClose}>
                {strings.close}
              </Button>
              <Button
                color="dark"
                disabled={!ready}
                loading={accept.isPending}
                onClick={() => {
                  accept.mutate();
                }}
                title={strings.ctrlEnter}
              >
                {strings.accept}
                {table.claims > 0
                  ? counted(table.claims, "value")
                  : table.cases > 0
                    ? counted(table.cases, "case")
                    : "it"}
              </Button>
            </span>
          </div>
          <Problems error={accept.error} title={strings.notAcceptedNothingWasSaved} />
          {table.looks_like && table.looks_like !== table.kind && (
            <p className="looks-like">
              {strings.thisLooksLike(titled(table.looks_like))}
              <Button
                variant="subtle"
                size="compact-xs"
                onClick={() => {
                  setReading(null);
                  setKind(table.looks_like);
                }}
              >
                {strings.readItAsThat}
              </Button>
            </p>
          )}
          <Questions
            key={asked(table.problems)[0]?.question.message ?? ""}
            problems={table.problems}
            onShow={show}
            onAnswer={(choice) => {
              give(choice.sets);
            }}
            onCase={(name) => {
              give({ case: name });
            }}
          />
        </>
      )}
      <div className="preview-cells" ref={cells}>
        <table>
          <thead>
            <tr>
              <th />
              {Array.from({ length: width }, (_, i) => {
                const name = assigned(i);
                const column = table.columns.find((c) => c.name === name);
                return (
                  <th key={i}>
                    {seen ? (
                      <>
                        {column?.title} {column && column.units.length > 0 && now.units?.[column.name]}
                      </>
                    ) : (
                      <>
                        <Select
                          aria-label={strings.columnContains(letters(i))}
                          clearable
                          placeholder={strings.excluded}
                          value={name}
                          data={table.columns.map((c) => ({ value: c.name, label: c.title }))}
                          onChange={(v) => {
                            const columns = Object.fromEntries(
                              Object.entries(now.columns ?? {}).filter(([n, at]) => at !== i && n !== v),
                            );
                            give({ columns: v ? { ...columns, [v]: i } : columns });
                          }}
                        />
                        {column && column.units.length > 0 && (
                          <Select
                            aria-label={strings.unitOf(column.title)}
                            placeholder={strings.whichUnit}
                            error={!now.units?.[column.name]}
                            value={now.units?.[column.name] ?? null}
                            data={column.units}
                            mt={2}
                            onChange={(v) => {
                              if (v) give({ units: { [column.name]: v } });
                            }}
                          />
                        )}
                      </>
                    )}
                    {!seen && name && table.why[name] && (
                      <span className={"read-so" + (table.unsure.includes(name) ? " unsure" : "")}>
                        {table.why[name].join("; ")}
                      </span>
                    )}
                  </th>
                );
              })}
            </tr>
          </thead>
          <tbody>
            {table.rows.map((cells, r) => (
              <tr key={r} data-row={r} className={table.skipped.includes(r) ? "skipped" : ""}>
                <th scope="row">
                  {seen || r === now.header_row ? (
                    r + down + 1
                  ) : (
                    <button
                      type="button"
                      title={table.skipped.includes(r) ? strings.includeThisRow : strings.excludeThisRow}
                      aria-label={strings.row2(
                        table.skipped.includes(r) ? strings.include : strings.exclude,
                        r + down + 1,
                      )}
                      onClick={() => {
                        setReading(withRow(reading, r, table.skipped.includes(r)));
                      }}
                    >
                      {r + down + 1}
                    </button>
                  )}
                </th>
                {cells.map((text, c) => {
                  const problem = atCell(r, c);
                  const ours = besides.get(`${String(r)} ${String(c)}`);
                  const looked = framed?.row === r + down && framed.column === c + right;
                  return (
                    <td
                      key={c}
                      className={(problem ? "bad" : assigned(c) ? "" : "unused") + (looked ? " framed" : "")}
                      title={problem ? `${problem.message}. ${problem.remedy}` : undefined}
                    >
                      {text}
                      {ours !== undefined && (
                        <span className="ours beside" title={strings.asInTheBrief}>
                          {ours}
                        </span>
                      )}
                      {problem && (
                        <span className="bad-mark">
                          {" "}
                          ▲<span className="bad-text">{problem.message}</span>
                        </span>
                      )}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {table.row_count > table.rows.length && (
        <p className="quiet">{strings.theFirstOfRowsAre(table.rows.length, table.row_count)}</p>
      )}
    </section>
  );
}
