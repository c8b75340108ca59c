import { useQuery } from "@tanstack/react-query";
import type { TableRead } from "../../shared/api/client";
import { pageQuery } from "../../shared/api/queries";
import { Crop } from "./Crop";
import { boxOf, cellsOf, type CellPlace } from "./places";
import type { Question } from "./reading";
import { letters } from "./reading";
import { strings } from "./strings";
import css from "./QuestionCells.module.css";

interface Props {
  table: TableRead;
  exhibit: number | undefined;
  question: Question;
  /** all rows that it concerns */
  rows: readonly number[];
}

/** The cells that a question is about: cut out of their page, or as they were sent. */
export function QuestionCells(props: Props) {
  const { table, exhibit } = props;
  const page = table.page ?? null;
  if (exhibit !== undefined && page !== null) return <OnPage {...props} exhibit={exhibit} page={page} />;
  return <AsCells {...props} />;
}

const WIDE = 620;
const HIGH = 130;

function OnPage({ table, exhibit, page, question, rows }: Props & { exhibit: number; page: number }) {
  const its = useQuery(pageQuery(exhibit, page)).data?.tables.find((t) => table.sheet.startsWith(t.sheet));
  const shown = cellsOf(table, question, rows);
  if (!its) return null;
  const all = shown.rows.flatMap((row) =>
    its.cells[row + (table.shift[0] ?? 0)]?.map((_, column) => ({ row, column })),
  );
  const box = boxOf(
    its,
    table.shift,
    all.filter((c): c is CellPlace => c !== undefined),
    4,
  );
  if (!box) return <AsCells table={table} exhibit={exhibit} question={question} rows={rows} />;
  return (
    <Crop
      exhibit={exhibit}
      page={page}
      box={box}
      framed={boxOf(its, table.shift, shown.marked) ?? undefined}
      width={WIDE}
      height={HIGH}
      label={strings.cellsOnPage(page)}
    />
  );
}

function AsCells({ table, question, rows }: Props) {
  const shown = cellsOf(table, question, rows);
  const [down = 0, right = 0] = table.shift;
  const marked = new Set(shown.marked.map((c) => `${String(c.row)} ${String(c.column)}`));
  if (shown.rows.length === 0) return null;
  return (
    <table className={css["cells"]} aria-label={strings.cellsOfTheQuestion}>
      <thead>
        <tr>
          <th />
          {shown.columns.map((c) => (
            <th key={c}>{letters(c + right)}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {shown.rows.map((r) => (
          <tr key={r} className={r === table.reading.header_row ? css["head"] : ""}>
            <th>{r + down + 1}</th>
            {shown.columns.map((c) => (
              <td key={c} className={marked.has(`${String(r)} ${String(c)}`) ? css["marked"] : ""}>
                {table.rows[r]?.[c]}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
