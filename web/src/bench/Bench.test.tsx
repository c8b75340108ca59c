import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, expect, it, vi } from "vitest";
import type { Check, Finding } from "../shared/api/client";
import { recheckOf, reviewContext, server, show, side, source, step } from "../review/testing";
import { check } from "../sheet/testing";
import { Bench } from "./Bench";

const ORIGIN = check({
  id: "V.X",
  theirs: { value: 400, text: "400", unit: "kN", source },
  carried: side(380, 0.0526, 5.3),
  independent: side(412, -0.029, -2.9),
  verdict: "differs",
  role: "origin",
  multiples: 5.3,
  draft: "Base shear V in X is given as 400 kN.",
  used_by: 2,
});
const STEPS = [
  step({
    id: "W",
    quantity: "W",
    direction: null,
    symbol: "W",
    symbol_tex: "W",
    value: 1900,
    clause: "12.7.2",
    meaning: "Weight",
    inputs: [],
  }),
  step({ id: "coefficient.X", quantity: "coefficient", symbol: "V/W", value: 0.2, unit: "", source: "input" }),
  step({ inputs: ["coefficient.X", "W"], tex: String.raw`\q{V} = \q{coefficient}\times\q{W}` }),
];

const DERIVATION: Parameters<typeof server>[0] = { "GET /api/reviews/r/derivation/": () => [200, STEPS] };

beforeEach(() => {
  server(DERIVATION);
});

function bench(chosen: Check | undefined, findings: Finding[] = [], others: Check[] = []) {
  const on = { select: vi.fn(), step: vi.fn() };
  const checks = chosen ? [chosen, ...others] : others;
  const context = reviewContext({
    recheck: recheckOf(checks, STEPS),
    selected: chosen,
    findings,
    select: on.select,
    stepDeviation: on.step,
  });
  show(<Bench />, undefined, context);
  return on;
}

const cells = (name: string) =>
  within(screen.getByRole("row", { name: new RegExp(`^${name}`) }))
    .getAllByRole("cell")
    .map((c) => c.textContent);

it("always has the same parts: theirs, ours, why, remark", () => {
  bench(ORIGIN);
  expect(cells("Theirs")).toEqual(["400", "", "S0-parameters.xlsx · Seismic · row 9 · B"]);
  expect(cells("Ours, carried").slice(0, 2)).toEqual(["380", "+5.3 %"]);
  expect(cells("Ours, independent").slice(0, 2)).toEqual(["412", "−2.9 %"]);
  expect(screen.getAllByRole("heading", { level: 3 }).map((h) => h.textContent)).toEqual(["Why", "Remark"]);
  expect(screen.getByText("differs, origin")).toBeInTheDocument();
  expect(screen.getByText(/2 more depend on it/)).toBeInTheDocument();
});

it("turns theirs into our unit and says what stood there", () => {
  bench(check({ ...ORIGIN, theirs: { value: 444.82216, text: "100.0", unit: "kip", source } }));
  expect(cells("Theirs")[0]).toBe("444.8");
  expect(cells("Theirs")[2]).toMatch(/^100.0 kip · /);
});

it("tells the limit that is breached", () => {
  const limit = {
    value: 0.9215,
    side: "max" as const,
    quantity: "T_limit",
    symbol: "C_u T_a",
    clause: "12.8.2",
    governed_by: null,
  };
  bench(
    check({
      ...ORIGIN,
      verdict: "breaches",
      limit,
      unit: "s",
      theirs: { value: 1.02, text: "1.02", unit: "s", source },
    }),
  );
  expect(cells("At most")[0]).toBe("0.921");
  expect(screen.getByText("exceeds the limit 0.9215 s, origin")).toBeInTheDocument();
});

it("leads from what is inherited to where it starts", async () => {
  const inherited = check({ ...ORIGIN, id: "F.X", role: "inherited", rests_on: ["F_v"] });
  const on = bench(inherited, [], [check({ id: "F_v", label: "F_v" })]);
  await userEvent.click(screen.getByRole("button", { name: "Fv" }));
  expect(on.select).toHaveBeenCalledWith("F_v");
});

it("opens each input of a derivation into its own steps", async () => {
  bench(ORIGIN);
  await userEvent.click(await screen.findByRole("button", { name: /^W 1900/ }));
  expect(screen.getByText("12.7.2")).toBeInTheDocument();
  await userEvent.click(screen.getByRole("button", { name: /^V\/W/ }));
  expect(screen.queryByText("12.7.2")).not.toBeInTheDocument();
  expect(screen.getByText("from the brief")).toBeInTheDocument();
});

it("goes to the next deviation", async () => {
  const on = bench(ORIGIN);
  await userEvent.click(screen.getByRole("button", { name: "Next deviation" }));
  await userEvent.click(screen.getByRole("button", { name: "Previous deviation" }));
  expect(on.step.mock.calls).toEqual([[1], [-1]]);
});

it("says what to do where nothing is chosen", () => {
  bench(undefined);
  expect(screen.getByRole("heading", { name: "Choose a check" })).toBeInTheDocument();
});

it("says what deviates in a stage, worst first, where nothing is chosen there", async () => {
  const select = vi.fn();
  const small = check({
    id: "T.X",
    label: "T X",
    stage: "lateral",
    verdict: "differs",
    role: "inherited",
    multiples: 2,
  });
  const fine = check({ id: "k.X", label: "k X", stage: "lateral", verdict: "agrees", multiples: 0 });
  const elsewhere = check({ id: "W", label: "W", stage: "weight", verdict: "differs", role: "origin", multiples: 4 });
  const checks = [small, fine, { ...ORIGIN, stage: "lateral" as const }, elsewhere];
  show(<Bench stage="lateral" />, undefined, reviewContext({ recheck: recheckOf(checks), select }));
  expect(screen.getAllByRole("button").map((b) => b.textContent)).toEqual(["V X", "T X"]);
  await userEvent.click(screen.getByRole("button", { name: "T X" }));
  expect(select).toHaveBeenCalledWith("T.X");
});

it("tells a stage in plumb from one that nothing was handed in for", () => {
  const fine = check({ id: "k.X", stage: "lateral", verdict: "agrees" });
  show(<Bench stage="lateral" />, undefined, reviewContext({ recheck: recheckOf([fine]) }));
  expect(screen.getByRole("heading", { name: "In plumb" })).toBeInTheDocument();
  show(<Bench stage="modes" />, undefined, reviewContext({ recheck: recheckOf([fine]) }));
  expect(screen.getByRole("heading", { name: "Nothing to compare yet" })).toBeInTheDocument();
});

it("files the drafted remark with the checks that follow from it", async () => {
  const asked = server({ "POST /api/reviews/r/findings/": () => [201, { number: 4 }] });
  bench(ORIGIN, [], [check({ id: "F.X.L1", rests_on: ["V.X"], role: "inherited", verdict: "differs" })]);
  const text = screen.getByRole("textbox", { name: "Text of the finding" });
  await userEvent.type(text, " Please correct.");
  await userEvent.click(screen.getByRole("button", { name: "File as finding 1" }));
  await waitFor(() => {
    expect(asked.some((a) => a.method === "POST")).toBe(true);
  });
  expect(asked.find((a) => a.method === "POST")?.body).toEqual({
    title: "Base shear X differs",
    text: "Base shear V in X is given as 400 kN. Please correct.",
    severity: "must",
    clause: "12.8.1",
    checks: ["V.X", "F.X.L1"],
    submission: 0,
  });
});

it("keeps what was written when it cannot be filed, and says why", async () => {
  server({
    "POST /api/reviews/r/findings/": () => [
      409,
      { errors: [{ path: "/", message: "the review is closed", remedy: "The lead can reopen it." }] },
    ],
  });
  bench(ORIGIN);
  await userEvent.click(screen.getByRole("button", { name: "File as finding 1" }));
  expect(await screen.findByRole("alert")).toHaveTextContent("The review is closed. The lead can reopen it.");
  expect(screen.getByRole("textbox", { name: "Text of the finding" })).toHaveValue(
    "Base shear V in X is given as 400 kN.",
  );
});

it("points at the finding that a check is in already", () => {
  const finding = {
    id: 1,
    number: 3,
    status: "issued",
    title: "Base shear",
    checks: ["V.X"],
    further: [],
  } as unknown as Finding;
  bench(ORIGIN, [finding]);
  expect(screen.getByRole("link", { name: "finding 3" })).toHaveAttribute("href", "/reviews/r/findings?finding=3");
  expect(screen.queryByRole("button", { name: /File as/ })).not.toBeInTheDocument();
});
