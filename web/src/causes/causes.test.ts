import { describe, expect, it } from "vitest";
import type { Cause, Causes, Check } from "../shared/api/client";
import { closenessOf, codesOf, marksBefore, named, proposalsFor, startOf, wordsOf } from "./causes";

const slip = (code: string | null, words: string) => ({ code, words, at: ["V", "X"], parameters: {} });
const base = { leaves: [], closeness: 0, bits: 8, remark: "" };
const cause = (changes: Partial<Cause>): Cause => ({
  slips: [slip("S57", "typed value")],
  explains: ["V.X"],
  others: [],
  ...base,
  ...changes,
});
const causes: Causes = {
  explained: 3,
  deviating: 4,
  causes: [
    cause({
      explains: ["F.X.L1", "V.X"],
      others: [{ ...base, slips: [slip("S02", "R = 1")], explains: ["V.X"] }],
    }),
    cause({ slips: [slip("S24", "Omega_0 in place of R"), slip("S54", "without the limit T_max")] }),
  ],
};
const check = (id: string, role: Check["role"], multiples: number) => ({ id, role, multiples }) as unknown as Check;

describe("a cause of a name", () => {
  it("is the cause, or another explanation of it", () => {
    expect(named(causes, "1")).toBe(causes.causes[1]);
    expect(named(causes, "0.0")?.slips[0]?.code).toBe("S02");
  });
  it("is none where there is none", () => {
    for (const name of [null, "", "7", "0.5", "x", "0.0.0"]) expect(named(causes, name)).toBeUndefined();
    expect(named(undefined, "0")).toBeUndefined();
  });
});

it("proposes what explains a check, each with what else explains it", () => {
  expect(proposalsFor(causes, "V.X").map((p) => p.name)).toEqual(["0", "0.0", "1"]);
  // the other explanation gives the base shear alone
  expect(proposalsFor(causes, "F.X.L1").map((p) => p.name)).toEqual(["0"]);
  expect(proposalsFor(causes, "k.X")).toEqual([]);
});

it("says what was done and its codes, of a set all of them once", () => {
  const [, both] = causes.causes;
  expect(both && wordsOf(both)).toBe("Omega_0 in place of R and without the limit T_max");
  expect(both && codesOf(both)).toBe("S24, S54");
  expect(codesOf(cause({ slips: [slip(null, "shifted by a row")] }))).toBe("");
});

it("starts at the origin, wherever that stands among the checks", () => {
  const checks = [check("F.X.L1", "inherited", -4), check("V.X", "origin", -9)];
  expect(causes.causes[0] && startOf(causes.causes[0], checks)?.id).toBe("V.X");
  expect(startOf(cause({ explains: ["none"] }), checks)).toBeUndefined();
});

it("comes to the last digit, or within a share", () => {
  expect(closenessOf(cause({ closeness: 4e-5 }))).toBe("to the last digit given");
  expect(closenessOf(cause({ closeness: 0.0102 }))).toBe("within 1 %");
});

it("knows where the marks of what it explains were", () => {
  const checks = [check("F.X.L1", "inherited", -4), check("k.X", "origin", 7)];
  expect(marksBefore(causes.causes[0], checks)).toEqual(new Map([["F.X.L1", -4]]));
  expect(marksBefore(undefined, checks).size).toBe(0);
});
