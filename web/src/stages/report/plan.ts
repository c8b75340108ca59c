import type { Schemas } from "../../shared/api/client";

export type Section = Schemas["Plan"]["sections"][number];

/** Every section a report can have, in their usual order. */
export const ALL: Section[] = [
  "scope",
  "definitions",
  "register",
  "pictures",
  "evidence",
  "history",
  "results",
  "causes",
  "sensitivity",
  "requirements",
  "editions",
  "assumptions",
  "unchecked",
];

export interface Row {
  id: Section;
  shown: boolean;
}

/** The chosen sections in their order, then the others. */
export const withAll = (chosen: Section[]): Row[] => [
  ...chosen.map((id) => ({ id, shown: true })),
  ...ALL.filter((id) => !chosen.includes(id)).map((id) => ({ id, shown: false })),
];

/** Rows with one of them a place further up or down. */
export function moved(rows: Row[], from: number, by: 1 | -1): Row[] {
  const [one, other] = [rows[from], rows[from + by]];
  if (!one || !other) return rows;
  return rows.map((row, i) => (i === from ? other : i === from + by ? one : row));
}
