import { describe, expect, it } from "vitest";
import type { Brief, Check, Edition } from "../../shared/api/client";
import {
  adopted,
  changesOf,
  merged,
  movedMarks,
  NOTHING_ASSUMED,
  patchAt,
  readAssumptions,
  together,
  withoutChange,
  writeAssumptions,
} from "./assumptions";
import { inputsOf, shownValue, valueOf } from "./inputs";

describe("a merge patch", () => {
  // the examples of RFC 7396, appendix A, that have objects
  it.each([
    [{ a: "b" }, { a: "c" }, { a: "c" }],
    [{ a: "b" }, { b: "c" }, { a: "b", b: "c" }],
    [{ a: "b" }, { a: null }, {}],
    [{ a: "b", b: "c" }, { a: null }, { b: "c" }],
    [{ a: ["b"] }, { a: "c" }, { a: "c" }],
    [{ a: "c" }, { a: ["b"] }, { a: ["b"] }],
    [{ a: { b: "c" } }, { a: { b: "d", c: null } }, { a: { b: "d" } }],
    [{ a: [{ b: "c" }] }, { a: [1] }, { a: [1] }],
    [{ e: null }, { a: 1 }, { e: null, a: 1 }],
    [[1, 2], { a: "b", c: null }, { a: "b" }],
    [{}, { a: { bb: { ccc: null } } }, { a: { bb: {} } }],
  ])("of %j with %j is %j", (target, patch, result) => {
    expect(merged(target, patch)).toEqual(result);
  });
  it("leaves what it was made of as it is", () => {
    const brief = { edition: "e", site: { S_S: 1 } } as unknown as Brief;
    expect(adopted(brief, { site: { S_S: 2 } })).toEqual({ edition: "e", site: { S_S: 2 } });
    expect(brief.site).toEqual({ S_S: 1 });
  });
});

describe("an address with assumptions", () => {
  it("gives back what was written", () => {
    const given = { patch: { site: { S_S: 0.9 } }, theirs: ["F_v"], ours: [] };
    expect(readAssumptions(writeAssumptions(given))).toEqual(given);
  });
  it("has none where nothing is assumed", () => {
    expect(writeAssumptions(NOTHING_ASSUMED)).toBeNull();
  });
  it.each([null, "", "{", "[]", "1", '"x"'])("assumes nothing of %j", (written) => {
    expect(readAssumptions(written)).toBeUndefined();
  });
  it("takes from strange parts what can be taken", () => {
    expect(readAssumptions('{"patch": 3, "theirs": ["a", 1], "ours": "b"}')).toEqual({
      patch: {},
      theirs: ["a"],
      ours: [],
    });
  });
});

it("lists single changes with their places, and takes one of them back", () => {
  const patch = merged(patchAt(["site", "S_S"], 1), patchAt(["system", "X", "R"], 6)) as Record<string, unknown>;
  expect(changesOf(patch)).toEqual([
    { at: ["site", "S_S"], value: 1 },
    { at: ["system", "X", "R"], value: 6 },
  ]);
  expect(withoutChange(patch, ["system", "X", "R"])).toEqual({ site: { S_S: 1 } });
  expect(together({ ...NOTHING_ASSUMED, patch }, { site: { S_S: 2 } }).patch).toEqual({
    site: { S_S: 2 },
    system: { X: { R: 6 } },
  });
});

it("knows which marks are elsewhere", () => {
  const check = (id: string, verdict: Check["verdict"], multiples: number | null) =>
    ({ id, verdict, multiples }) as unknown as Check;
  const before = { checks: [check("a", "agrees", 0), check("b", "differs", 4), check("c", "note", null)] };
  const after = { checks: [check("a", "differs", 3), check("b", "differs", 4.01), check("c", "gap", null)] };
  expect(movedMarks(before, after)).toEqual(new Map([["a", 0]]));
});

describe("the inputs of a brief", () => {
  const input = { symbol: "", symbol_tex: "", unit: "", option_words: [], computed: false };
  const edition = {
    inputs: [
      {
        ...input,
        name: "site_class",
        part: "site",
        per_direction: false,
        form: "choice",
        meaning: "Site class",
        options: ["C", "D"],
      },
      { ...input, name: "R", part: "system", per_direction: true, form: "number", meaning: "Factor", options: [] },
      { ...input, name: "known", part: "site", per_direction: false, form: "flag", meaning: "Known", options: [] },
      { ...input, name: "loads", part: "brief", per_direction: false, form: "data", meaning: "Loads", options: [] },
    ],
  } as unknown as Edition;
  const brief = { edition: "e", site: { site_class: "D" }, system: { X: { R: 8 } } } as unknown as Brief;
  const inputs = inputsOf(edition, brief);

  it("are those that have a single value, by direction where they have one", () => {
    expect(inputs.map((i) => i.name)).toEqual([
      "site.site_class",
      "system.X.R",
      "system.Y.R",
      "site.known",
      "period.X.analysis",
      "period.Y.analysis",
    ]);
    expect(inputs.map((i) => i.value)).toEqual(["D", 8, undefined, undefined, undefined, undefined]);
  });
  it("take what was typed as the brief has it", () => {
    const [soil, R, , known] = inputs;
    expect(soil && valueOf(soil, "C")).toBe("C");
    expect(R && valueOf(R, "6,5")).toBe(6.5);
    expect(R && valueOf(R, "six")).toBeUndefined();
    expect(R && valueOf(R, "")).toBeUndefined();
    expect(known && [valueOf(known, "yes"), valueOf(known, "no")]).toEqual([true, false]);
  });
  it("are shown in words", () => {
    expect([undefined, true, false, 0.123456789, "D", [1]].map(shownValue)).toEqual([
      "not given",
      "yes",
      "no",
      "0.12346",
      "D",
      "…",
    ]);
  });
});
