import { Select } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import type { Ref } from "react";
import type { TableRead } from "../../shared/api/client";
import { pageQuery } from "../../shared/api/queries";
import { Crop } from "./Crop";
import { boxOf, type Box } from "./places";
import { letters, withRow } from "./reading";
import { strings } from "./strings";
import type { Preview } from "./useTablePreview";

interface Props {
  table: TableRead;
  preview: Preview;
  exhibit: number | undefined;
  /** a cell to frame, from 0, on its sheet */
  framed: { row: number; column: number } | undefined;
  /** whether the table is shown only */
  seen: boolean;
  /** the scrolling box of the cells */
  ref: Ref<HTMLDivElement>;
}

/** The cells of a table below the columns they are read as, with the problems in their cells. */
export function PreviewCells({ table, preview, exhibit, framed, seen, ref }: Props) {
  const now = table.reading;
  const width = table.rows[0]?.length ?? 0;
  const [down = 0, right = 0] = table.shift;
  const assigned = (index: number) => Object.entries(now.columns ?? {}).find(([, i]) => i === index)?.[0] ?? null;
  const atCell = (row: number, column: number) =>
    table.problems.find((p) => p.row === row && (p.column === column || p.column === null));
  const besides = new Map(table.beside.map((b) => [`${String(b.row)} ${String(b.column)}`, b.text]));
  const scanned = new Map(
    table.scanned.map((s) => [`${String(s.row)} ${String(s.column)}`, Math.round(100 * s.confidence)]),
  );
  const page = table.page ?? null;
  const pageData = useQuery({
    ...pageQuery(exhibit ?? 0, page ?? 0),
    enabled: exhibit !== undefined && page !== null && scanned.size > 0,
  });
  const its = pageData.data?.tables.find((t) => table.sheet.startsWith(t.sheet));
  return (
    <div className="preview-cells" ref={ref}>
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
                          preview.give({ columns: v ? { ...columns, [v]: i } : columns });
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
                            if (v) preview.give({ units: { [column.name]: v } });
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
                    aria-label={strings.rowCalled(
                      table.skipped.includes(r) ? strings.include : strings.exclude,
                      r + down + 1,
                    )}
                    onClick={() => {
                      preview.setReading(withRow(preview.reading, r, table.skipped.includes(r)));
                    }}
                  >
                    {r + down + 1}
                  </button>
                )}
              </th>
              {cells.map((text, c) => {
                const problem = atCell(r, c);
                const ours = besides.get(`${String(r)} ${String(c)}`);
                const share = scanned.get(`${String(r)} ${String(c)}`);
                const looked = framed?.row === r + down && framed.column === c + right;
                return (
                  <td
                    key={c}
                    className={(problem ? "bad" : assigned(c) ? "" : "unused") + (looked ? " framed" : "")}
                    title={problem ? `${problem.message}. ${problem.remedy}` : undefined}
                  >
                    {text}
                    {share !== undefined && (
                      <>
                        <ScannedCell
                          exhibit={exhibit}
                          page={page}
                          box={its && boxOf(its, table.shift, [{ row: r, column: c }], 2)}
                        />
                        <span className="quiet scanned" title={strings.readOffAnImage(share)}>
                          {share} %
                        </span>
                      </>
                    )}
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
  );
}

/** A value as its page shows it, beside what was read. */
function ScannedCell({
  exhibit,
  page,
  box,
}: {
  exhibit: number | undefined;
  page: number | null;
  box: Box | null | undefined;
}) {
  if (exhibit === undefined || page === null || !box) return null;
  return (
    <span className="scanned-crop">
      <Crop exhibit={exhibit} page={page} box={box} width={120} height={16} label={strings.asOnThePage} />
    </span>
  );
}
