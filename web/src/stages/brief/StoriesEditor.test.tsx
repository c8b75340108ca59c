import { fireEvent, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it, vi } from "vitest";
import type { Story } from "../../shared/api/client";
import { show } from "../../review/testing";
import { StoriesEditor } from "./StoriesEditor";

const TWO: Story[] = [
  { name: "L1", height: 4, weight: 1000 },
  { name: "L2", height: 3.6, weight: 900 },
];

function editor(stories = TWO) {
  const change = vi.fn();
  show(<StoriesEditor stories={stories} onChange={change} />);
  return change;
}

const paste = (text: string) =>
  fireEvent.paste(screen.getByLabelText("Paste stories here"), { clipboardData: { getData: () => text } });

it("stands as the building does, the top story first, with levels and sums", () => {
  editor();
  expect(screen.getAllByLabelText(/^Name of/).map((f) => (f as HTMLInputElement).value)).toEqual(["L2", "L1"]);
  expect(screen.getAllByText("7.60")).toHaveLength(2);
});

it("takes cells pasted from a spreadsheet", () => {
  const change = editor([]);
  paste("L2\t3.6\t900\nL1\t4\t1000");
  expect(change).toHaveBeenCalledExactlyOnceWith(TWO);
});

it("takes none of a paste with a line that cannot be read, and names the line", () => {
  const change = editor();
  paste("L1\t4\t1000\nL2\t-3\t900");
  expect(change).not.toHaveBeenCalled();
  expect(screen.getByRole("alert")).toHaveTextContent(
    "Line 2 is not a name, a height above zero and a weight above zero",
  );
});

it("changes one value", async () => {
  const change = editor();
  const field = screen.getByLabelText("Weight of L2");
  await userEvent.clear(field);
  await userEvent.type(field, "950{Enter}");
  expect(change).toHaveBeenCalledExactlyOnceWith([TWO[0], { name: "L2", height: 3.6, weight: 950 }]);
});

it("does not take a name that stands for another story", async () => {
  const change = editor();
  const field = screen.getByLabelText("Name of L2");
  await userEvent.clear(field);
  await userEvent.type(field, "L1{Enter}");
  expect(screen.getByText("This name is already used")).toBeInTheDocument();
  expect(change).not.toHaveBeenCalled();
});

it("adds a story on top, named on, and removes one", async () => {
  const change = editor();
  await userEvent.click(screen.getByRole("button", { name: "Add a story on top" }));
  expect(change).toHaveBeenLastCalledWith([...TWO, { name: "L3", height: 3.6, weight: 900 }]);
  await userEvent.click(screen.getByRole("button", { name: "Remove L1" }));
  expect(change).toHaveBeenLastCalledWith([TWO[1]]);
});
