import { describe, expect, it } from "vitest";
import type { Finding } from "../../shared/api/client";
import { EVERYTHING, isDue, mentions, ordered, passes } from "./register";

const finding = (changes: object) =>
  ({
    number: 1,
    status: "issued",
    severity: "must",
    title: "T",
    text: "x",
    evidence: [],
    due: null,
    ...changes,
  }) as unknown as Finding;

describe("the filter of the register", () => {
  const mine = finding({ assignee: { id: 7, name: "Ilse Varga" }, evidence: [{ stage: "ground" }], submission: "S0" });
  const closed = finding({ status: "settled", assignee: { id: 7, name: "Ilse Varga" } });
  it.each([
    [{ which: "mine" }, true, false],
    [{ which: "open" }, true, false],
    [{ which: "answered" }, false, false],
    [{ stage: "ground" }, true, false],
    [{ submission: "S1" }, false, false],
    [{ severity: "must" }, true, true],
    [{ words: "  t " }, true, true],
  ])("%o", (filter, ofMine, ofClosed) => {
    const whole = { ...EVERYTHING, ...filter } as typeof EVERYTHING;
    expect([passes(mine, whole, 7, "2026-05-01"), passes(closed, whole, 7, "2026-05-01")]).toEqual([ofMine, ofClosed]);
  });

  it("knows what is past its date", () => {
    expect(isDue(finding({ due: "2026-04-30" }), "2026-05-01")).toBe(true);
    expect(isDue(finding({ due: "2026-05-01" }), "2026-05-01")).toBe(false);
    expect(isDue(finding({ due: "2026-04-30", status: "settled" }), "2026-05-01")).toBe(false);
  });
});

it("puts what was answered first by state, and the earliest date first by date", () => {
  const all = [
    finding({ number: 1, status: "settled", due: "2026-05-02" }),
    finding({ number: 2, status: "answered" }),
    finding({ number: 3, status: "issued", due: "2026-05-01" }),
  ];
  expect(ordered(all, "state").map((f) => f.number)).toEqual([2, 3, 1]);
  expect(ordered(all, "due").map((f) => f.number)).toEqual([3, 1, 2]);
});

it("finds the checks and findings that a text mentions", () => {
  const known = new Set(["C_s.X", "F.X.L3"]);
  expect(mentions("See C_s.X and #2; V.Q is none.", known)).toEqual([
    { text: "See " },
    { text: "C_s.X", check: "C_s.X" },
    { text: " and " },
    { text: "#2", finding: 2 },
    { text: "; V.Q is none." },
  ]);
});
