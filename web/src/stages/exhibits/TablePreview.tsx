import { Button, Checkbox, Select } from "@mantine/core";
import { useHotkeys } from "@mantine/hooks";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api, type Reading, type ReadTable, type TableRead } from "../../shared/api/client";
import { tableQuery, useVocabulary } from "../../shared/api/queries";
import { counted } from "../../shared/numbers";
import { Problems } from "../../shared/Problems";

export interface TableSource {
  review: string;
  name: string;
  text?: string;
  exhibit?: number;
}

interface Props {
  source: TableSource;
  onClose: () => void;
  onAccepted: () => void;
}

/** A table as it is understood, to be corrected by pointing at columns; problems stand in their cells. */
export function TablePreview({ source, onClose, onAccepted }: Props) {
  const [sheet, setSheet] = useState("");
  const [kind, setKind] = useState("");
  const [reading, setReading] = useState<Reading | null>(null);
  const path = { params: { path: { review_id: source.review } } };
  const body: ReadTable = {
    ...(source.exhibit === undefined ? { text: source.text ?? "", name: source.name } : { exhibit: source.exhibit }),
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
          body: { ...body, kind: read.data?.kind ?? kind, reading: read.data?.reading ?? reading },
        }),
      ),
    onSuccess: onAccepted,
  });
  const ready =
    read.data !== undefined && !read.data.problems.some((p) => p.holds_up) && read.data.claims + read.data.cases > 0;
  useHotkeys(
    [
      [
        "mod+Enter",
        () => {
          if (ready) accept.mutate();
        },
      ],
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
              ? `${source.name} can't be read; nothing was saved`
              : `${source.name} is kept as it is; no table can be read from it`
          }
        />
        <Button variant="default" onClick={onClose}>
          Back
        </Button>
      </div>
    );
  if (!read.data) return <p className="quiet">Reading…</p>;
  const table: TableRead = read.data;
  const now = table.reading;
  const point = (edit: (m: Reading) => void) => {
    const m = structuredClone(now);
    edit(m);
    setReading(m);
  };
  const assigned = (index: number) => Object.entries(now.columns ?? {}).find(([, i]) => i === index)?.[0] ?? null;
  const atCell = (row: number, column: number) =>
    table.problems.find((p) => p.row === row && (p.column === column || p.column === null));
  const standing = table.problems.filter((p) => p.holds_up).length;
  const asksFor = (pattern: RegExp) => table.problems.some((p) => pattern.test(p.message));
  const elsewhere = table.problems.filter((p) => p.row === null);
  const width = table.rows[0]?.length ?? 0;
  const cases = Object.entries(now.cases ?? {});
  const unclear = [
    ...new Set(
      table.problems
        .map((p) => /^the direction of case '(.+)' isn't clear/.exec(p.message)?.[1])
        .filter((c) => c !== undefined),
    ),
  ];
  return (
    <section className="preview" aria-label={`Table ${source.name}`}>
      <div className="stage-head">
        <b>{source.name}</b>
        <Select
          aria-label="What kind of table"
          w={180}
          allowDeselect={false}
          value={table.kind}
          data={kinds.map((k) => ({ value: k.id, label: k.title }))}
          onChange={(v) => {
            setReading(null);
            setKind(v ?? "");
          }}
        />
        {table.sheets.length > 1 && (
          <Select
            aria-label="Sheet"
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
            aria-label="Order of the stories"
            w={170}
            allowDeselect={false}
            placeholder="which is the lowest?"
            value={asksFor(/^it isn't clear which of the stories is the lowest/) ? null : now.order || "bottom_up"}
            data={[
              { value: "top_down", label: "top story first" },
              { value: "bottom_up", label: "bottom story first" },
            ]}
            onChange={(v) => {
              point((m) => {
                m.order = (v ?? "") as "top_down";
              });
            }}
          />
        )}
        {(now.numbers || asksFor(/^it isn't clear how the numbers are written/)) && (
          <Select
            aria-label="How decimals are written"
            w={170}
            placeholder="how are decimals written?"
            value={now.numbers || null}
            data={[
              { value: "point", label: "as in 1,234.5" },
              { value: "comma", label: "as in 1.234,5" },
            ]}
            onChange={(v) => {
              point((m) => {
                m.numbers = (v ?? "") as "point";
              });
            }}
          />
        )}
        {table.kind === "parameters" && (
          <Checkbox
            label="values without a direction hold for X and Y"
            checked={now.both ?? false}
            onChange={(e) => {
              const on = e.currentTarget.checked;
              point((m) => {
                m.both = on;
              });
            }}
          />
        )}
        {[
          ...cases.map(([name, d]) => ({ name, d: d as string | null })),
          ...unclear.map((name) => ({ name, d: null })),
        ].map(({ name, d }) => (
          <label key={name} className="case">
            case <b>{name}</b> is
            <Select
              aria-label={`Direction of case ${name}`}
              w={64}
              value={d}
              data={["X", "Y"]}
              onChange={(v) => {
                if (v)
                  point((m) => {
                    m.cases = { ...m.cases, [name]: v as "X" };
                  });
              }}
            />
          </label>
        ))}
        <span className="end">
          <Button variant="default" onClick={onClose}>
            Leave
          </Button>
          <Button
            color="dark"
            disabled={!ready}
            loading={accept.isPending}
            onClick={() => {
              accept.mutate();
            }}
            title="Ctrl+Enter"
          >
            Accept {table.claims > 0 ? counted(table.claims, "value") : counted(table.cases, "case")}
          </Button>
        </span>
      </div>
      <Problems error={accept.error} title="Not accepted; nothing was saved" />
      {table.problems.length > 0 && (
        <div className="problem" role="alert">
          <p style={{ fontWeight: 600 }}>
            {standing > 0
              ? `${String(standing)} ${standing === 1 ? "thing stands" : "things stand"} in the way`
              : `${counted(table.problems.length, "row")} left out`}
          </p>
          {elsewhere.map((p) => (
            <p key={p.message}>
              {sentence(p.message)}. <span className="quiet">{p.remedy}</span>
            </p>
          ))}
          {table.problems
            .filter((p) => p.row !== null)
            .slice(0, 6)
            .map((p, i) => (
              <p key={i}>
                Row {(p.row ?? 0) + 1}
                {p.column === null ? "" : `, column ${String.fromCharCode(65 + p.column)}`}: {p.message}.{" "}
                <span className="quiet">{p.remedy}</span>
              </p>
            ))}
          {table.problems.filter((p) => p.row !== null).length > 6 && (
            <p className="quiet">
              and {table.problems.filter((p) => p.row !== null).length - 6} more, marked in their cells
            </p>
          )}
        </div>
      )}
      <div className="preview-cells">
        <table>
          <thead>
            <tr>
              <th />
              {Array.from({ length: width }, (_, i) => {
                const name = assigned(i);
                const column = table.columns.find((c) => c.name === name);
                return (
                  <th key={i}>
                    <Select
                      aria-label={`Column ${String.fromCharCode(65 + i)} holds`}
                      clearable
                      placeholder="left out"
                      value={name}
                      data={table.columns.map((c) => ({ value: c.name, label: c.title }))}
                      onChange={(v) => {
                        point((m) => {
                          const columns = Object.fromEntries(
                            Object.entries(m.columns ?? {}).filter(([n, at]) => at !== i && n !== v),
                          );
                          m.columns = v ? { ...columns, [v]: i } : columns;
                        });
                      }}
                    />
                    {column && column.units.length > 0 && (
                      <Select
                        aria-label={`Unit of ${column.title}`}
                        placeholder="which unit?"
                        error={!now.units?.[column.name]}
                        value={now.units?.[column.name] ?? null}
                        data={column.units}
                        mt={2}
                        onChange={(v) => {
                          if (v)
                            point((m) => {
                              m.units = { ...m.units, [column.name]: v };
                            });
                        }}
                      />
                    )}
                  </th>
                );
              })}
            </tr>
          </thead>
          <tbody>
            {table.rows.map((cells, r) => (
              <tr key={r} className={table.skipped.includes(r) ? "skipped" : ""}>
                <th scope="row">{r + 1}</th>
                {cells.map((text, c) => {
                  const problem = atCell(r, c);
                  return (
                    <td
                      key={c}
                      className={problem ? "bad" : assigned(c) ? "" : "unused"}
                      title={problem ? `${problem.message}. ${problem.remedy}` : undefined}
                    >
                      {text}
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
        <p className="quiet">
          The first {table.rows.length} of {table.row_count} rows are shown; all are read.
        </p>
      )}
    </section>
  );
}

const sentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
