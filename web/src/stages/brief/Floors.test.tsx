import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it, vi } from "vitest";
import { server, show } from "../../review/testing";
import type { Story } from "../../shared/api/client";
import { Floors } from "./Floors";

const STORIES: Story[] = [
  { name: "L1", height: 4, weight: 1000 },
  { name: "L2", height: 3.6, weight: 900, plan: [30, 20] },
];

function floors(stories = STORIES, stiffness = false, offsets = false) {
  server({});
  const change = vi.fn<(stories: Story[]) => void>();
  show(
    <Floors reviewId="r" briefNumber={1} stories={stories} onChange={change} stiffness={stiffness} offsets={offsets} />,
  );
  return change;
}

const enter = async (label: string, text: string) => {
  const field = screen.getByLabelText(label);
  await userEvent.clear(field);
  await userEvent.type(field, `${text}{Enter}`);
};

it("states how many floors have dimensions", () => {
  floors();
  expect(screen.getByText(/Floors in plan/)).toHaveTextContent("1 of 2");
});

it("uses the first dimension for both until the other is entered", async () => {
  const change = floors();
  await enter("Plan of L1 along X", "28");
  expect(change.mock.lastCall?.[0][0]?.plan).toEqual([28, 28]);
  await enter("Plan of L2 along Y", "18");
  expect(change.mock.lastCall?.[0][1]?.plan).toEqual([30, 18]);
});

it("removes the plan where a dimension is deleted", async () => {
  const change = floors();
  await userEvent.clear(screen.getByLabelText("Plan of L2 along X"));
  await userEvent.tab();
  expect(change.mock.lastCall?.[0][1]?.plan).toBeNull();
});

it("saves the stiffness in plan once all four values are entered", async () => {
  const change = floors(STORIES, true);
  await enter("e_0X of L1", "0.4");
  await enter("e_0Y of L1", "0.6");
  await enter("rX of L1", "9");
  expect(change).not.toHaveBeenCalled();
  await enter("rY of L1", "8");
  expect(change.mock.lastCall?.[0][0]?.plan_stiffness).toEqual({
    e_0: { X: 0.4, Y: 0.6 },
    r: { X: 9, Y: 8 },
    l_s: null,
  });
});

it("asks for an offset of the lateral system only where an edition uses it", () => {
  floors();
  expect(screen.queryByLabelText("Lateral system offset in L1")).not.toBeInTheDocument();
  floors(STORIES, false, true);
  expect(screen.getByRole("combobox", { name: "Lateral system offset in L1" })).toHaveValue("none");
});
