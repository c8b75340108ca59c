import type { DeskRow } from "../shared/api/client";

export type Order = "turn" | "waiting" | "due" | "title" | "newest";

/** The desk in an order; as it comes, those that wait for the person are first. */
export function ordered(rows: DeskRow[], order: Order): DeskRow[] {
  if (order === "turn") return rows;
  const key: Record<Exclude<Order, "turn">, (r: DeskRow) => string | number> = {
    waiting: (r) => -r.days,
    due: (r) => r.due ?? "9999",
    title: (r) => r.title.toLowerCase(),
    newest: (r) => -Date.parse(r.created_at),
  };
  const of = key[order];
  return [...rows].sort((a, b) => {
    const [one, other] = [of(a), of(b)];
    return one < other ? -1 : one > other ? 1 : 0;
  });
}

/** Open findings of a review in all. */
export const openFindings = (row: DeskRow): number => Object.values(row.findings).reduce((sum, n) => sum + n, 0);
