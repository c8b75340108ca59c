import { expect, it } from "vitest";
import type { DeskRow } from "../shared/api/client";
import { openFindings, ordered } from "./order";

const row = (title: string, days: number, due: string | null = null) =>
  ({
    title,
    days,
    due,
    created_at: `2026-0${String(days % 9)}-01`,
    findings: { must: 2, note: 1 },
  }) as unknown as DeskRow;

it("is ordered as the reviewer chooses, and as the server sends it otherwise", () => {
  const rows = [row("Quay House", 3), row("Gull Rock", 8, "2026-05-02"), row("Old Mole", 5, "2026-05-01")];
  const titles = (order: Parameters<typeof ordered>[1]) => ordered(rows, order).map((r) => r.title);
  expect(titles("turn")).toEqual(["Quay House", "Gull Rock", "Old Mole"]);
  expect(titles("waiting")).toEqual(["Gull Rock", "Old Mole", "Quay House"]);
  expect(titles("due")).toEqual(["Old Mole", "Gull Rock", "Quay House"]);
  expect(titles("title")).toEqual(["Gull Rock", "Old Mole", "Quay House"]);
  expect(titles("newest")).toEqual(["Gull Rock", "Old Mole", "Quay House"]);
});

it("counts open findings of all severities", () => {
  expect(openFindings(row("Quay House", 1))).toBe(3);
});
