import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it, vi } from "vitest";
import { show } from "../../review/testing";
import type { Across, Story } from "../../shared/api/client";
import { LoadsEditor } from "./LoadsEditor";

const STORIES: Story[] = [
  {
    name: "L1",
    height: 4,
    loads: [
      { name: "slab", kind: "dead", amount: 2000 },
      { name: "store", kind: "storage", amount: 4000 },
    ],
  },
  { name: "L2", height: 3.6, weight: 900 },
];
const COUNTED = (counted: number, share: number | null) => ({ counted, share, why: "12.7.2" });
const WEIGHTS = {
  "asce7-16": { w: [3000, 900], loads: [[COUNTED(2000, 1), COUNTED(1000, 0.25)], null] },
} as unknown as Across["weights"];

function editor(stories = STORIES, weights: Across["weights"] | undefined = WEIGHTS) {
  const change = vi.fn<(stories: Story[]) => void>();
  show(
    <LoadsEditor
      stories={stories}
      onChange={change}
      weights={weights}
      editions={[{ id: "asce7-16", title: "ASCE 7-16" }]}
    />,
  );
  return change;
}

const loads = (change: ReturnType<typeof editor>, i: number) => change.mock.lastCall?.[0][i]?.loads;

it("shows what the edition counts of each load, with its share", () => {
  editor();
  const row = screen.getByLabelText("Load L1 2").closest("tr") as HTMLElement;
  expect(within(row).getByText("× 0.25").closest("td")).toHaveTextContent("1000 × 0.25");
  expect(within(row).getByText("× 0.25").closest("td")).toHaveAttribute("title", "12.7.2");
});

it("says that an input is missing where nothing is counted yet", () => {
  editor(STORIES, {});
  expect(screen.getAllByText("missing input")).toHaveLength(2);
});

it("changes one load and leaves the others as they are", async () => {
  const change = editor();
  await userEvent.click(screen.getByRole("combobox", { name: "Kind of load L1 2" }));
  const live = screen.getAllByRole("option", { name: "live", hidden: true }).at(-1);
  await userEvent.click(live as HTMLElement);
  expect(loads(change, 0)?.map((l) => l.kind)).toEqual(["dead", "live"]);
  const amount = screen.getByLabelText(/^Amount of load L1 1/);
  await userEvent.clear(amount);
  await userEvent.type(amount, "2 100{Enter}");
  expect(loads(change, 0)?.[0]?.amount).toBe(2100);
  expect(change.mock.lastCall?.[0][1]).toBe(STORIES[1]);
});

it("names a load, and Escape leaves the name", async () => {
  const change = editor();
  const name = screen.getByLabelText("Load L1 1");
  await userEvent.type(name, " and beams{Escape}");
  expect(name).toHaveValue("slab");
  expect(change).not.toHaveBeenCalled();
  await userEvent.type(name, " and beams{Enter}");
  expect(loads(change, 0)?.[0]?.name).toBe("slab and beams");
});

it("has a weight again once the last load is removed", async () => {
  const change = editor([{ name: "L1", height: 4, loads: [{ name: "slab", kind: "dead", amount: 2000 }] }]);
  await userEvent.click(screen.getByRole("button", { name: /Remove load L1 1/i }));
  expect(change.mock.lastCall?.[0][0]).toMatchObject({ loads: null, weight: null });
});

it("uses pasted loads only if every line can be read", async () => {
  const change = editor();
  await userEvent.click(screen.getByRole("button", { name: "Paste loads" }));
  const field = screen.getByLabelText(/^Story, load, kind, amount/i);
  await userEvent.click(field);
  await userEvent.paste("L1\tslab\tdead\t1800\nL9\tslab\tdead\t1800");
  await userEvent.click(screen.getByRole("button", { name: /^Use them/ }));
  expect(screen.getByRole("alert")).toHaveTextContent("Line 2: there is no story L9");
  expect(change).not.toHaveBeenCalled();
  await userEvent.clear(field);
  await userEvent.paste("L1\tslab\tdead\t1800");
  await userEvent.click(screen.getByRole("button", { name: /^Use them/ }));
  expect(loads(change, 0)).toMatchObject([{ name: "slab", kind: "dead", amount: 1800 }]);
});
