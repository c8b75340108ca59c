import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it, vi } from "vitest";
import { recheckOf, show } from "../review/testing";
import { passes, rowsOf, type SheetFilter } from "./layout";
import { PlumbSheet } from "./PlumbSheet";
import { check } from "./testing";

const CHECKS = [
  check({
    id: "F_v",
    quantity: "F_v",
    direction: null,
    stage: "ground",
    label: "F_v",
    symbol: "F_v",
    meaning: "Long-period site coefficient",
    verdict: "differs",
    role: "origin",
    multiples: -27,
  }),
  check({
    id: "S_D1",
    quantity: "S_D1",
    direction: null,
    stage: "ground",
    label: "S_D1",
    symbol: "S_D1",
    verdict: "differs",
    role: "inherited",
    multiples: -13,
    rests_on: ["F_v"],
  }),
  check({
    id: "gap_SDC",
    quantity: "design_category",
    direction: null,
    stage: "ground",
    label: "SDC",
    symbol: "SDC",
    verdict: "gap",
    multiples: null,
    level: null,
  }),
  check({ id: "T.X", quantity: "T", label: "T X", symbol: "T", verdict: "breaches", role: "origin", multiples: 10 }),
  check({ id: "V.Y", direction: "Y", label: "V Y" }),
];
const ALL: SheetFilter = { which: "all", code: "", direction: "", level: "" };

const STAGES = [
  { id: "ground", page: "ground" as const },
  { id: "weight", page: "weight" as const },
  { id: "lateral", page: "lateral" as const },
  { id: "twist", page: undefined },
];

function sheet(filter = ALL, selected: string | null = "F_v", folded: ("ground" | "lateral")[] = []) {
  const rows = rowsOf(recheckOf(CHECKS));
  const on = { select: vi.fn(), fold: vi.fn(), filter: vi.fn() };
  const { container } = show(
    <PlumbSheet
      stages={STAGES}
      rows={rows}
      shown={rows.filter((r) => passes(r, filter))}
      selected={selected}
      folded={folded}
      filter={filter}
      onSelect={on.select}
      onFold={on.fold}
      onFilter={on.filter}
    />,
  );
  return { on, container };
}

it("says each verdict in words, not in colour alone", () => {
  sheet();
  expect(screen.getAllByRole("option").map((o) => o.getAttribute("aria-label"))).toEqual([
    "F_v: differs, origin",
    "S_D1: differs, inherited",
    "SDC: gap: not stated",
    "T X: exceeds the limit, origin",
    "V Y: agrees",
  ]);
});

it("gives each verdict a shape of its own", () => {
  const { container } = sheet();
  // lozenges for what differs, a square for a breach, a broken ring for a gap, a dot for what agrees
  expect(container.querySelectorAll(".sheet-track path[d*='l6 6-6 6']")).toHaveLength(2);
  expect(container.querySelectorAll(".sheet-track rect[width='10']")).toHaveLength(1);
  expect(container.querySelectorAll(".sheet-track circle[stroke-dasharray]")).toHaveLength(1);
  expect(container.querySelectorAll(".sheet-track circle[r='3.4']")).toHaveLength(1);
});

it("hangs what is lower to the left of the line and what is higher to the right", () => {
  const { container } = sheet();
  const arms = [...container.querySelectorAll(".sheet-track g line[stroke-width]")].map(
    (l) => Number(l.getAttribute("x2")) - Number(l.getAttribute("x1")),
  );
  expect(arms.map(Math.sign)).toEqual([-1, -1, 1]);
  // the arm of what is inherited is dashed
  expect(container.querySelectorAll(".sheet-track g line[stroke-dasharray='3 3']")).toHaveLength(1);
});

it("counts what starts here, what is inherited and what is missing at each stage", () => {
  const { container } = sheet();
  expect([...container.querySelectorAll(".sheet-stage-counts")].map((c) => c.textContent)).toEqual([
    "1 here1 inherited1 gap",
    "1 here1 agree",
  ]);
});

it("is walked with the arrow keys and chosen from with a click", async () => {
  const { on } = sheet();
  screen.getByRole("listbox", { name: "Checks" }).focus();
  await userEvent.keyboard("{ArrowDown}");
  expect(on.select).toHaveBeenLastCalledWith("S_D1");
  await userEvent.keyboard("{ArrowUp}");
  expect(on.select).toHaveBeenCalledTimes(1);
  await userEvent.click(screen.getByRole("option", { name: /T X/ }));
  expect(on.select).toHaveBeenLastCalledWith("T.X");
});

it("names what follows from the chosen origin", () => {
  sheet();
  expect(screen.getByRole("option", { name: /S_D1/ }).className).toContain("related");
  expect(screen.getByRole("option", { name: /T X/ }).className).not.toContain("related");
});

it("folds a stage and still shows its marks", async () => {
  const { on, container } = sheet(ALL, null, ["ground"]);
  expect(screen.getAllByRole("option")).toHaveLength(2);
  expect(container.querySelectorAll(".sheet-track path[d*='l6 6-6 6']")).toHaveLength(2);
  await userEvent.click(screen.getByRole("button", { name: "Open ground" }));
  expect(on.fold).toHaveBeenCalledWith("ground");
});

it("shows only what is out of plumb, or one direction, when asked", async () => {
  const { on } = sheet({ which: "out", code: "", direction: "Y", level: "" });
  expect(screen.getAllByRole("option").map((o) => o.textContent)).toEqual(["Fv", "SD1", "SDC"]);
  await userEvent.click(screen.getByRole("radio", { name: "all checks" }));
  expect(on.filter).toHaveBeenCalledWith({ which: "all", code: "", direction: "Y", level: "" });
});

it("says so where a filter leaves nothing", () => {
  sheet({ which: "all", code: "", direction: "", level: "1" });
  expect(screen.getByText("No checks match this filter.")).toBeInTheDocument();
});
