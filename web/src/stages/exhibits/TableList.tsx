import type { ClaimTable, FoundTable } from "../../shared/api/client";
import { counted } from "../../shared/numbers";
import { strings } from "./strings";

interface Props {
  tables: FoundTable[];
  /** the accepted table of a label */
  acceptedOf: (label: string) => ClaimTable | undefined;
  chosen: string;
  titled: (kind: string) => string;
  onChoose: (label: string) => void;
}

/** The tables of a file: accepted, not accepted yet, or of no kind. */
export function TableList({ tables, acceptedOf, chosen, titled, onChoose }: Props) {
  if (tables.length === 0) return null;
  return (
    <>
      <h3 className="part">
        {strings.tablesInThisFile}
        <span className="quiet keys">
          <span className="key">[</span> <span className="key">]</span>
          {strings.previousNext}
        </span>
      </h3>
      <ul className="read-in">
        {tables.map((table) => {
          const accepted = acceptedOf(table.label);
          return (
            <li key={table.label} className={table.label === chosen ? "now" : ""}>
              <button
                type="button"
                onClick={() => {
                  onChoose(table.label);
                }}
              >
                <i className={accepted ? "done" : table.kind ? "open" : "none"} aria-hidden />
                <span className="at">{table.page === null ? table.label : `p. ${String(table.page)}`}</span>
                <b>{titled(accepted?.kind ?? table.kind) || strings.noKindOfTable}</b>
                <span className="quiet">
                  {accepted
                    ? accepted.claims > 0
                      ? counted(accepted.claims, "value") +
                        (accepted.open_parts.length > 0 ? strings.withRowsNotRead(accepted.open_parts.length) : "")
                      : strings.accepted
                    : table.kind
                      ? strings.notAcceptedYet(counted(table.rows, "row"))
                      : table.title}
                </span>
              </button>
            </li>
          );
        })}
      </ul>
    </>
  );
}
