import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it, vi } from "vitest";
import { RowsEditor, type Column, type Row } from "./RowsEditor";
import { show } from "../review/testing";

const COLUMNS: Column[] = [
  {
    name: "story",
    label: "story",
    spoken: "story",
    width: 90,
    required: true,
    options: [
      { value: "L1", label: "L1" },
      { value: "L2", label: "L2" },
    ],
  },
  { name: "share", label: "share", spoken: "share of the shear", width: 90, required: true },
  { name: "loss", label: "loss", spoken: "loss of strength", width: 90 },
];

function editor(rows: Row[], fresh: Row = { story: "L1" }) {
  const onChange = vi.fn();
  show(<RowsEditor what="element taken out" rows={rows} columns={COLUMNS} fresh={fresh} onChange={onChange} />);
  return onChange;
}

it("keeps a row to itself until it is whole", async () => {
  const onChange = editor([]);
  await userEvent.click(screen.getByText("add an element taken out"));
  expect(screen.getByText("Saved once it has share of the shear.")).toBeVisible();
  await userEvent.type(screen.getByLabelText("loss of strength, element taken out 1"), "0.3{Enter}");
  expect(onChange).not.toHaveBeenCalled();
  await userEvent.type(screen.getByLabelText("share of the shear, element taken out 1"), "0.5{Enter}");
  expect(onChange).toHaveBeenCalledExactlyOnceWith([{ story: "L1", loss: 0.3, share: 0.5 }]);
});

it("changes and removes rows that are there, and does not empty what a row needs", async () => {
  const onChange = editor([
    { story: "L1", share: 0.5 },
    { story: "L2", share: 0.4 },
  ]);
  const share = screen.getByLabelText("share of the shear, element taken out 2");
  await userEvent.clear(share);
  await userEvent.type(share, "{Enter}");
  expect(onChange).not.toHaveBeenCalled();
  // the value that stands is back
  expect(share).toHaveValue("0.4");
  await userEvent.clear(share);
  await userEvent.type(share, "0.45{Enter}");
  expect(onChange).toHaveBeenLastCalledWith([
    { story: "L1", share: 0.5 },
    { story: "L2", share: 0.45 },
  ]);
  await userEvent.click(screen.getByLabelText("Remove element taken out 1"));
  expect(onChange).toHaveBeenLastCalledWith([{ story: "L2", share: 0.4 }]);
});

it("adds at once what is whole from the start", async () => {
  const onChange = editor([{ story: "L1", share: 0.5 }], { story: "L2", share: 1 });
  await userEvent.click(screen.getByText("another element taken out"));
  expect(onChange).toHaveBeenCalledWith([
    { story: "L1", share: 0.5 },
    { story: "L2", share: 1 },
  ]);
});
