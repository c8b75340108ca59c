import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it, vi } from "vitest";
import { recheckOf, show, source, step } from "../shared/testing";
import { check } from "../sheet/testing";
import { HeightLog } from "./HeightLog";

const claim = (id: string, quantity: string, story: string, value: number, out = false) =>
  check({
    id, quantity, story, symbol: quantity, direction: quantity === "w" ? null : "X", theirs: { value, text: String(value), unit: "kN", source },
    verdict: out ? "differs" : "agrees", role: out ? "origin" : null,
  });
const RECHECK = recheckOf(
  [claim("w.L1", "w", "L1", 1000), claim("w.L2", "w", "L2", 90, true), claim("F.X.L1", "F", "L1", 130), claim("F.X.L2", "F", "L2", 250)],
  [
    step({ id: "h", quantity: "h", direction: null, value: [4, 3.6] }), step({ id: "w", quantity: "w", direction: null, value: [1000, 900] }),
    step({ id: "F.X", quantity: "F", value: [131, 249] }), step({ id: "F.Y", quantity: "F", direction: "Y", value: [100, 200] }),
  ],
);

function log(recheck = RECHECK) {
  const on = { direction: vi.fn(), select: vi.fn() };
  show(<HeightLog recheck={recheck} plans={[[30, 20], null]} direction="X" onDirection={on.direction} onSelect={on.select} />);
  return on;
}

const row = (name: string) => within(screen.getByRole("row", { name: new RegExp(`^${name} `) })).getAllByRole("cell").map((c) => c.textContent);

it("holds all values as a table too, the top story first", () => {
  log();
  const names = screen.getAllByRole("row").map((r) => r.querySelector("td")?.textContent).filter(Boolean);
  expect(names).toEqual(["L2", "L1"]);
  // level, then theirs, ours and how far off for each track: weight, force, shear, overturning
  expect(row("L2").slice(0, 8)).toEqual(["L2", "7.6", "90", "900.0", "−90.0 %", "250", "249.0", "+0.4 %"]);
  expect(row("L1").slice(8)).toEqual(["–", "–", "", "–", "–", ""]);
});

it("marks only what is beyond the tolerance", () => {
  log();
  expect(screen.getByText("−90.0 %").className).toContain("off");
  expect(screen.getByText("+0.4 %").className).not.toContain("off");
});

it("takes tracks out, in again and to another place", async () => {
  log();
  const heads = () => screen.getAllByRole("columnheader").map((h) => h.textContent).filter((t) => t?.includes(", k"));
  expect(heads()).toEqual(["weight, kN", "force, kN", "shear, kN", "overturning, kN m"]);
  await userEvent.click(screen.getByRole("button", { name: "Take overturning out" }));
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
  expect(screen.getByText(/type them in the brief/)).toBeInTheDocument();
});
