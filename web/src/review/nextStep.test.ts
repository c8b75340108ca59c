import { describe, expect, it } from "vitest";
import type { Finding, Recheck, Review } from "../shared/api/client";
import { nextStep } from "./nextStep";

const review = (changes: object = {}) =>
  ({
    status: "open",
    brief: { stories: [{ name: "L1" }] },
    submissions: [{ number: 0, label: "S0", claims: 5, status: "accepted" }],
    ...changes,
  }) as unknown as Review;
const recheck = (...origins: string[]) =>
  ({ checks: origins.map((id) => ({ id, label: id, role: "origin" })) }) as unknown as Recheck;
const finding = (changes: object) =>
  ({ number: 1, status: "issued", submission: "S0", checks: [], further: [], ...changes }) as unknown as Finding;
const S1 = { number: 1, label: "S1", claims: 5, status: "accepted" };
const S0 = { number: 0, label: "S0", claims: 5, status: "accepted" };

describe("the next step", () => {
  it.each([
    ["an empty brief", review({ brief: {} }), recheck(), [], "brief", undefined],
    ["nothing submitted", review({ submissions: [] }), recheck(), [], "exhibits", undefined],
    ["a draft submission", review({ submissions: [{ ...S0, status: "draft" }] }), recheck(), [], "exhibits", undefined],
    ["the first deviation", review(), recheck("F_v", "V.X"), [], "sheet", "F_v"],
    ["the next one", review(), recheck("F_v", "V.X"), [finding({ status: "draft", checks: ["F_v"] })], "sheet", "V.X"],
    ["a draft", review(), recheck("F_v"), [finding({ status: "draft", checks: ["F_v"] })], "findings", undefined],
    ["an answer", review(), recheck("F_v"), [finding({ status: "answered" })], "findings", undefined],
    ["the next submission", review({ submissions: [S0, S1] }), recheck("F_v"), [finding({})], "rounds", undefined],
    ["all closed", review(), recheck(), [finding({ status: "settled" })], "report", undefined],
  ])("is at %s", (_, of, sheet, findings, page, check) => {
    const step = nextStep(of, sheet, findings);
    expect([step?.page, step?.check]).toEqual([page, check]);
  });

  it("is none in a closed review", () => {
    expect(nextStep(review({ status: "closed" }), recheck("F_v"), [])).toBeNull();
  });
});
