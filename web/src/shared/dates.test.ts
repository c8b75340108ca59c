import { expect, test } from "vitest";
import { day, moment } from "./dates";

test("the month is in letters whatever the locale", () => {
  for (const locale of ["en-GB", "en-US", "de-DE", "en-IN", "fr-FR"]) {
    expect(day("2026-03-04T12:00:00Z", locale), locale).toMatch(/M[aä]r|mars/i);
    expect(moment("2026-03-04T12:00:00Z", locale), locale).toMatch(/M[aä]r|mars/i);
  }
  expect(day("2026-03-04T12:00:00Z", "en-GB")).toBe("4 Mar 2026");
});
