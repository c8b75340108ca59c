import { describe, expect, it } from "vitest";
import type { Step } from "../shared/api/client";
import { Steps, substituted, symbolic, valueText } from "./derivation";

function step(changes: Partial<Step>): Step {
  return {
    id: "S_DS",
    quantity: "S_DS",
    direction: null,
    case: null,
    symbol: "S_DS",
    symbol_tex: "S_{DS}",
    meaning: "",
    unit: "g",
    value: 0.816,
    source: "rule",
    clause: "",
    tex: "",
    inputs: [],
    governed_by: null,
    candidates: [],
    margin: null,
    ...changes,
  };
}

const ds = step({});
const rx = step({ id: "R.X", quantity: "R", direction: "X", symbol_tex: "R", value: 6, unit: "", source: "input" });
const ry = step({ id: "R.Y", quantity: "R", direction: "Y", symbol_tex: "R", value: 8, unit: "", source: "input" });
const cs = step({
  id: "C_s.Y",
  quantity: "C_s",
  direction: "Y",
  symbol_tex: "C_s",
  value: 0.102,
  tex: String.raw`\q{C_s} = \frac{\q{S_DS}}{\q{R}}`,
});
const steps = new Steps([ds, rx, ry, cs]);

describe("an equation", () => {
  it("is written in symbols", () => {
    expect(symbolic(cs, steps)).toBe(String.raw`{C_s} = \frac{{S_{DS}}}{{R}}`);
  });

  it("keeps a command apart from the symbol that follows it", () => {
    const times = step({
      id: "V.X",
      quantity: "V",
      direction: "X",
      symbol_tex: "V",
      tex: String.raw`\q{V} = 2\times\q{R}`,
    });
    expect(symbolic(times, new Steps([times, rx]))).toBe(String.raw`{V} = 2\times{R}`);
  });

  it("is written with the numbers of its own direction", () => {
    expect(substituted(cs, steps)).toBe(String.raw` \frac{0.8160}{8}`);
  });

  it("puts a multiplication sign between numbers", () => {
    const sms = step({
      id: "S_MS",
      quantity: "S_MS",
      value: 1.224,
      tex: String.raw`\q{S_MS} = \tfrac{2}{3}\,\q{S_DS}\,\q{R}`,
    });
    expect(substituted(sms, new Steps([ds, sms, step({ id: "R", quantity: "R", value: 6, source: "input" })]))).toBe(
      String.raw` \tfrac{2}{3} \times 0.8160 \times 6`,
    );
  });

  it("has no second form where it holds no numbers", () => {
    expect(substituted(step({ tex: String.raw`\q{S_DS} = \text{given}` }), steps)).toBeNull();
  });
});

it("a list shows the story that is asked for", () => {
  const forces = step({ value: [133.333, 266.667] });
  expect(valueText(forces, 1)).toBe("266.7");
  expect(valueText(forces, null)).toBe("2 values");
});

it.each([
  [0.36, "0.36"],
  [1.2, "1.2"],
  [8, "8"],
  [5580, "5580"],
  [1.131553, "1.13155"],
  [0.05, "0.05"],
])("%d is shown as given", (value, text) => {
  expect(valueText(step({ value, source: "input" }), null)).toBe(text);
});
