import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it, vi } from "vitest";
import type { Brief } from "../shared/api/client";
import { recheckOf, show, source, step } from "../review/testing";
import { check } from "../sheet/testing";
import { lateralTracks } from "./data";
import { HeightLog } from "./HeightLog";

const claim = (id: string, quantity: string, story: string, value: number, out = false) =>
  check({
    id,
    quantity,
    story,
    symbol: quantity,
    direction: quantity === "w" ? null : "X",
    theirs: { value, text: String(value), unit: "kN", source },
    verdict: out ? "differs" : "agrees",
    role: out ? "origin" : null,
  });
const RECHECK = recheckOf(
  [
    claim("w.L1", "w", "L1", 1000),
    claim("w.L2", "w", "L2", 90, true),
    claim("F.X.L1", "F", "L1", 130),
    claim("F.X.L2", "F", "L2", 250),
  ],
  [
    step({ id: "h", quantity: "h", direction: null, value: [4, 3.6] }),
    step({ id: "w", quantity: "w", direction: null, value: [1000, 900] }),
    step({ id: "F.X", quantity: "F", value: [131, 249] }),
    step({ id: "F.Y", quantity: "F", direction: "Y", value: [100, 200] }),
  ],
);

const BRIEF = {
  stories: [
    { name: "L1", height: 4, plan: [30, 20] },
    { name: "L2", height: 3.6 },
  ],
} as unknown as Brief;

function log(recheck = RECHECK) {
  const on = { direction: vi.fn(), select: vi.fn(), story: vi.fn() };
  show(
    <HeightLog
      recheck={recheck}
      brief={BRIEF}
      tracks={lateralTracks(recheck, "X")}
      direction="X"
      onDirection={on.direction}
      onSelect={on.select}
      onStory={on.story}
    />,
  );
  return on;
}

const row = (name: string) =>
  within(screen.getByRole("row", { name: new RegExp(`^${name} `) }))
    .getAllByRole("cell")
    .map((c) => c.textContent);

it("holds all values as a table too, the top story first", () => {
  log();
  const names = screen
    .getAllByRole("row")
    .map((r) => r.querySelector("td")?.textContent)
    .filter(Boolean);
  expect(names).toEqual(["L2", "L1", "sum"]);
  // level, then theirs, ours and how far off for each track: weight, force, shear, overturning
  expect(row("L2").slice(0, 8)).toEqual(["L2", "7.6", "90", "900.0", "−90.0 %", "250", "249.0", "+0.4 %"]);
  expect(row("L1").slice(8)).toEqual(["–", "–", "", "–", "–", ""]);
});

it("marks only what is beyond the tolerance", () => {
  log();
  expect(screen.getByText("−90.0 %").className).toContain("off");
  expect(screen.getByText("+0.4 %").className).not.toContain("off");
});

it("opens what is out by a press in its row", async () => {
  const on = log();
  await userEvent.click(screen.getByRole("button", { name: "−90.0 %" }));
  expect(on.select).toHaveBeenCalledWith("w.L2");
});

it("tells which story is read", async () => {
  const on = log();
  await userEvent.hover(screen.getByRole("row", { name: /^L1 / }));
  expect(on.story).toHaveBeenLastCalledWith(0);
});

it("sums what adds up, and nothing else", () => {
  log();
  expect(row("sum").slice(2, 5)).toEqual(["1090", "1900", "−42.6 %"]);
  expect(row("sum").slice(8)).toEqual(["", "", "", "", "", ""]);
});

it("takes tracks out, in again and to another place", async () => {
  log();
  const heads = () =>
    screen
      .getAllByRole("columnheader")
      .map((h) => h.textContent)
      .filter((t) => t.includes(", k"));
  expect(heads()).toEqual(["weight, kN", "force, kN", "shear, kN", "overturning, kN m"]);
  await userEvent.click(screen.getByRole("button", { name: "Remove overturning" }));
  await userEvent.click(screen.getByRole("button", { name: "Move shear to the left" }));
  expect(heads()).toEqual(["weight, kN", "shear, kN", "force, kN"]);
  await userEvent.click(screen.getByRole("button", { name: "+ overturning" }));
  expect(heads()).toEqual(["weight, kN", "shear, kN", "force, kN", "overturning, kN m"]);
});

it("changes the direction", async () => {
  const on = log();
  await userEvent.click(screen.getByRole("radio", { name: "Y" }));
  expect(on.direction).toHaveBeenCalledWith("Y");
});

it("copies as a table", async () => {
  const user = userEvent.setup();
  log();
  await user.click(screen.getByRole("button", { name: "Copy table" }));
  expect(await navigator.clipboard.readText()).toMatch(/^story, direction X\tlevel \(m\)\tweight theirs \(kN\)/);
});

it("says what to do where no stories are known", () => {
  log({ ...RECHECK, stories: [] });
  expect(screen.getByText(/enter them in the brief/)).toBeInTheDocument();
});
