import { expect, it } from "vitest";
import type { Check, Recheck } from "./client";
import { whole } from "./queries";

const check = (id: string) => ({ id }) as Check;

it("puts the checks of the pages where they stand among all", () => {
  const apart = { recheck: "r", places: [1, 4], checks: 5, inherited: 0, pages: 2 };
  const sheet = { checks: [check("b"), check("e")], apart } as Recheck;
  const pages = [
    { places: [0, 2], checks: [check("a"), check("c")] },
    { places: [3], checks: [check("d")] },
  ];
  const all = whole(sheet, pages);
  expect(all.checks.map((c) => c.id)).toEqual(["a", "b", "c", "d", "e"]);
  expect(all.apart).toBeUndefined();
});

it("leaves a small sheet as it is", () => {
  const sheet = { checks: [check("a")] } as Recheck;
  expect(whole(sheet, [])).toBe(sheet);
});
