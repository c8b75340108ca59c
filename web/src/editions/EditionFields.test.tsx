import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it, vi } from "vitest";
import type { Brief, Edition, EditionInput, Need } from "../shared/api/client";
import { show, step } from "../review/testing";
import { EditionFields } from "./EditionFields";

const input = (changes: Partial<EditionInput>): EditionInput => ({
  name: "R",
  part: "system",
  per_direction: true,
  symbol: "R",
  symbol_tex: "R",
  meaning: "Response modification factor",
  unit: "",
  form: "number",
  options: [],
  option_words: [],
  computed: true,
  shared: false,
  ...changes,
});

const UBC = {
  id: "ubc97",
  title: "UBC 1997",
  short: "UBC 1997",
  year: 1997,
  supports: [],
  period_types: [],
  formulas: ["30-8", "30-9"],
  choices: [],
  parts: [],
  walls_with: [],
  soil_input: "soil",
  longest_period: null,
  inputs: [
    input({
      name: "zone",
      part: "site",
      per_direction: false,
      symbol: "zone",
      meaning: "Seismic zone",
      form: "choice",
      options: ["1", "2A", "4"],
      computed: false,
    }),
    input({
      name: "soil",
      part: "site",
      per_direction: false,
      symbol: "soil",
      meaning: "Soil profile type",
      form: "choice",
      options: ["S_C", "S_D"],
      computed: false,
    }),
    input({}),
    input({ name: "rho", symbol: "ρ", meaning: "Redundancy factor", computed: false }),
    input({ name: "v_s30", part: "site", per_direction: false, symbol: "v_s30", meaning: "Velocity", shared: true }),
    input({ name: "walls", form: "data" }),
  ],
  systems: [{ id: "BF_conc_wall", title: "concrete shear walls", factors: { R: 5.5 }, heights: {} }],
} as unknown as Edition;

const BRIEF = { edition: "asce7-16", stories: [] } as unknown as Brief;
const NEEDS: Need[] = [
  {
    name: "soil",
    direction: null,
    proposals: [
      { value: "S_D", share: 0.96 },
      { value: "S_C", share: 0.04 },
    ],
    basis: "D of ASCE/SEI 7-16 means 180 to 370 m/s",
  },
  { name: "R", direction: "X" },
];

function fields(props: Partial<Parameters<typeof EditionFields>[0]> = {}) {
  const written: Brief[] = [];
  const change = vi.fn((edit: (b: Brief) => void) => {
    const copy = structuredClone(BRIEF);
    edit(copy);
    written.push(copy);
  });
  show(
    <EditionFields edition={UBC} brief={BRIEF} change={change} needs={NEEDS} wanted={() => true} onDemand {...props} />,
  );
  return written;
}

it("asks only for what is needed until more is wanted", async () => {
  fields();
  expect(screen.getByLabelText("soil", { selector: "input" })).toBeVisible();
  expect(screen.getByLabelText("R X")).toBeVisible();
  expect(screen.queryByLabelText("zone", { selector: "input" })).toBeNull();
  expect(screen.queryByLabelText("ρ X")).toBeNull();
  await userEvent.click(screen.getByText(/more optional inputs/));
  expect(screen.getByLabelText("zone", { selector: "input" })).toBeVisible();
  expect(screen.getByLabelText("ρ Y")).toBeVisible();
});

it("leaves what is the same under every edition, and what has an editor of its own, to others", () => {
  fields({ onDemand: false });
  expect(screen.queryByLabelText("v_s30")).toBeNull();
  expect(screen.queryByLabelText("walls X")).toBeNull();
});

it("proposes a class of soil with its basis, and takes it over only when told", async () => {
  const written = fields();
  expect(screen.getByText(/not used:/)).toHaveTextContent("D of ASCE/SEI 7-16 means 180 to 370 m/s");
  expect(written).toEqual([]);
  await userEvent.click(screen.getByRole("button", { name: /use S_D/ }));
  expect(written[0]?.comparisons?.["ubc97"]?.site?.soil).toBe("S_D");
});

it("writes a value where the edition has it", async () => {
  const written = fields();
  await userEvent.type(screen.getByLabelText("R X"), "5.5{Enter}");
  expect(written[0]?.comparisons?.["ubc97"]?.system?.X?.R).toBe(5.5);
});

it("shows what the code gives in the field that is left empty", () => {
  fields({ steps: [step({ id: "R.X", quantity: "R", value: 5.5 })] });
  expect(screen.getByLabelText("R X")).toHaveAttribute("placeholder", "5.5");
  expect(screen.getByLabelText("R X")).toHaveValue("");
});
