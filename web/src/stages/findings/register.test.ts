import { describe, expect, it } from "vitest";
import type { Finding } from "../../shared/api/client";
import { EVERYTHING, isDue, known, mentions, ordered, passes } from "./register";

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
  const names = known(
    [
      { id: "C_s.X", label: "C_s X" },
      { id: "F.Y.L6.Static Y", label: "F Y L6 Static Y" },
      { id: "W", label: "W" },
    ],
    [{ number: 2 }],
  );
  expect(mentions("See C_s.X and #2 (F.Y.L6.Static Y); V.Q, W and #7 are none.", names)).toEqual([
    { text: "See " },
    { text: "C_s.X", check: "C_s.X" },
    { text: " and " },
    { text: "#2", finding: 2 },
    { text: " (" },
    { text: "F.Y.L6.Static Y", check: "F.Y.L6.Static Y" },
    { text: "); V.Q, W and #7 are none." },
  ]);
  // as the sheet calls them, and at the end of a sentence
  expect(mentions("Compare F Y L6 Static Y with C_s X.", names)).toEqual([
    { text: "Compare " },
    { text: "F Y L6 Static Y", check: "F.Y.L6.Static Y" },
    { text: " with " },
    { text: "C_s X", check: "C_s.X" },
    { text: "." },
  ]);
  expect(mentions("", names)).toEqual([]);
});
