import type { ClaimTable } from "../../shared/api/client";
import { strings } from "./strings";

/** Rows and columns of an accepted table that are not read, each with its question. */
export function OpenParts({ table }: { table: ClaimTable }) {
  return table.open_parts.map((part) => (
    <p key={part.question + part.rows.join()} className="open-part">
      {strings.placeNotRead(
        part.rows.length > 0 ? strings.rowsAt(part.rows.join(", "), part.rows.length > 1) : strings.aColumn,
      )}
      {part.question}
    </p>
  ));
}
