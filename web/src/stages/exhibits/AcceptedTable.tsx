import { Button } from "@mantine/core";
import type { ClaimTable, Reading } from "../../shared/api/client";
import { counted } from "../../shared/numbers";
import { OpenParts } from "./OpenParts";
import { strings } from "./strings";
import { TablePreview } from "./TablePreview";
import type { TableSource } from "./useTablePreview";

interface Props {
  review: string;
  exhibit: number;
  table: ClaimTable;
  /** the table within its file */
  label: string;
  title: string;
  /** whether it can be read again or removed */
  editable: boolean;
  /** whether its cells are shown; those of a page are shown on the page */
  preview: boolean;
  framed: { row: number; column: number } | undefined;
  onAgain: (source: TableSource) => void;
  onRemove: () => void;
  onClose: () => void;
}

/** A table that was accepted, with its cells. */
export function AcceptedTable(props: Props) {
  const { review, exhibit, table, label } = props;
  const source: TableSource = {
    review,
    exhibit,
    name: label,
    sheet: label,
    kind: table.kind,
    reading: answersOf(table.reading),
  };
  return (
    <div className="accepted-table">
      <p>
        <b>{props.title}</b> <span className="quiet">{strings.from(label)}</span>:{" "}
        {table.claims > 0 ? strings.acceptedCount(counted(table.claims, "value")) : `${strings.accepted}.`}
      </p>
      <OpenParts table={table} />
      {props.editable && (
        <p>
          <Button
            variant="default"
            size="compact-sm"
            onClick={() => {
              props.onAgain({ ...source, replaces: table.id });
            }}
          >
            {strings.changeTheAnswers}
          </Button>{" "}
          <Button variant="subtle" color="gray" size="compact-sm" onClick={props.onRemove}>
            {strings.removeIt}
          </Button>
        </p>
      )}
      {props.preview && (
        <TablePreview
          key={label}
          seen
          source={source}
          framed={props.framed}
          onClose={props.onClose}
          onAccepted={() => undefined}
        />
      )}
    </div>
  );
}

/** The answers of a stored reading; columns and units without an answer are recognised again. */
function answersOf(stored: Record<string, unknown>): Reading {
  const { cases, numbers, both, stories, left_out, taken_in, confirmed, columns, units, order } = stored as Reading;
  return { cases, numbers, both, stories, left_out, taken_in, confirmed, columns, units, order };
}
