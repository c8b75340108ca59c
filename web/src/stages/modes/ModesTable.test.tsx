import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, test, vi } from "vitest";
import type { ModalAnswer, SubmittedModes } from "../../model/answers";
import { show } from "../../review/testing";
import { check } from "../../sheet/testing";
import { ModesTable } from "./ModesTable";
import { theirShape } from "./ModeViewer";

const mode = (T: number, X: number, Y: number, kind: "X" | "Y") => ({
  T,
  f: 1 / T,
  omega: (2 * Math.PI) / T,
  gamma: { X: 1, Y: 1, RZ: 0 },
  kind,
  mass_ratio: { X, Y, RZ: 0 },
  at_floors: 1,
  shape: [],
});
const ANSWER: ModalAnswer = {
  engine: "test",
  kind: "modal",
  edition: null,
  modes: [mode(1.6, 0, 0.8, "Y"), mode(1.0, 0.7, 0, "X"), mode(0.5, 0, 0.15, "Y"), mode(0.3, 0.22, 0, "X")],
  cumulative: { X: [0, 0.7, 0.7, 0.92], Y: [0.8, 0.8, 0.95, 0.95], RZ: [0, 0, 0, 0] },
  enough: { X: true, Y: true },
  target: 0.9,
  reached_at: { X: 4, Y: 3 },
  mass: { X: 1, Y: 1, RZ: 1 },
  centre: [0, 0],
  rayleigh: { X: 1, Y: 1.6 },
  counted_by: "all",
  floors: [],
  mass_table: [],
  warnings: [],
};
const SUBMITTED: SubmittedModes = {
  theirs: [
    { mode: 1, T: 1.58, mass_ratio: { X: 0, Y: 0.79 }, shape: null },
    { mode: 2, T: 1.01, mass_ratio: { X: 0.5, Y: 0 }, shape: null },
    { mode: 3, T: 9.9, mass_ratio: {}, shape: null },
  ],
  comparison: {
    rows: [
      { ours: 1, theirs: 1, mac: 0.99, likeness: 0.9 },
      { ours: 2, theirs: 2, mac: null, likeness: 0.9 },
      { ours: 3, theirs: null, mac: null, likeness: null },
      { ours: 4, theirs: null, mac: null, likeness: null },
    ],
    unmatched: [3],
    missing: [3],
    swapped: false,
    likeness: { as_submitted: 0.9, exchanged: 0.1 },
    sums: { X: 0.5, Y: 0.79, RZ: null },
    enough: { X: false, Y: false },
  },
  target: 0.9,
};

function table(onChoose = vi.fn(), onSelect = vi.fn(), answer: ModalAnswer | undefined = ANSWER) {
  const checks = [
    check({
      id: "mass_ratio.X.2",
      quantity: "mass_ratio",
      direction: "X",
      mode: 2,
      level: 3,
      stage: "modes",
      verdict: "differs",
      role: "origin",
    }),
  ];
  show(
    <ModesTable
      answer={answer}
      submitted={SUBMITTED}
      chosen={1}
      onChoose={onChoose}
      checks={checks}
      onSelect={onSelect}
    />,
  );
  return screen.getAllByRole("row").slice(2);
}

test("rows are matched, the missing one is said, and their loose ones stand below", () => {
  const rows = table();
  expect(within(rows[0] as HTMLElement).getByText("1.580")).toHaveClass("theirs");
  expect(rows[0]).toHaveTextContent("0.99");
  expect(rows[2]).toHaveTextContent("missing from the submitted list");
  expect(rows[3]).not.toHaveTextContent("missing");
  expect(rows[4]).toHaveTextContent("no matching mode in the reference model");
  expect(rows[4]).toHaveTextContent("9.900");
});

test("where the target is met is marked in its row", () => {
  const rows = table();
  expect(rows[2]).toHaveTextContent("90 % in Y");
  expect(rows[3]).toHaveTextContent("90 % in X");
});

test("a share out of plumb opens its check, a row its mode", async () => {
  const choose = vi.fn(),
    select = vi.fn();
  const rows = table(choose, select);
  await userEvent.click(within(rows[1] as HTMLElement).getByRole("button", { name: "50.0" }));
  expect(select).toHaveBeenCalledWith("mass_ratio.X.2");
  expect(choose).not.toHaveBeenCalled();
  await userEvent.click(rows[3] as HTMLElement);
  expect(choose).toHaveBeenCalledWith(4);
});

test("without an answer their modes are still listed", () => {
  show(
    <ModesTable
      answer={undefined}
      submitted={{ ...SUBMITTED, comparison: null }}
      chosen={1}
      onChoose={vi.fn()}
      checks={[]}
      onSelect={vi.fn()}
    />,
  );
  expect(screen.getAllByText("the reference model has not been analysed")).toHaveLength(3);
});

test("their shape is brought to our scale and sign, and exchanged axes are turned back", () => {
  const theirs = {
    mode: 1,
    T: 1,
    mass_ratio: {},
    shape: [
      { story: "L1", X: -2, Y: 0, RZ: 0 },
      { story: "L2", X: -4, Y: 0, RZ: 0 },
    ],
  };
  expect(
    theirShape(
      theirs,
      ["L1", "L2"],
      [
        [0.5, 0, 0],
        [1, 0, 0],
      ],
      false,
    ),
  ).toEqual([
    [0.5, -0, -0],
    [1, -0, -0],
  ]);
  const back = theirShape(
    theirs,
    ["L1", "L2"],
    [
      [0, 0.5, 0],
      [0, 1, 0],
    ],
    true,
  );
  expect(back?.[1]?.[1]).toBeCloseTo(1);
  expect(theirShape({ ...theirs, shape: null }, [], [], false)).toBeNull();
});
