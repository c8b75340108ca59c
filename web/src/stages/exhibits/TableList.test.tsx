import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it, vi } from "vitest";
import { show } from "../../review/testing";
import type { ClaimTable } from "../../shared/api/client";
import { AcceptedTable } from "./AcceptedTable";
import { ReadingStatus } from "./ReadingStatus";
import { TableList } from "./TableList";
import { TypeValue } from "./TypeValue";

const found = (label: string, kind: string, page: number | null = null) => ({
  label,
  kind,
  page,
  rows: 3,
  title: "Notes",
});
const accepted = {
  id: 7,
  kind: "stories",
  open_parts: [],
  claims: 12,
  reading: { units: { h: "m" } },
} as unknown as ClaimTable;
const titled = (kind: string) => ({ stories: "stories", modes: "modes" })[kind] ?? "";

it("lists accepted tables, those not accepted yet, and those of no kind", async () => {
  const onChoose = vi.fn();
  show(
    <TableList
      tables={[found("A", "stories"), found("B", "modes"), found("C", "", 4)]}
      acceptedOf={(label) => (label === "A" ? accepted : undefined)}
      chosen="B"
      titled={titled}
      onChoose={onChoose}
    />,
  );
  const rows = screen.getAllByRole("button").map((b) => b.textContent);
  expect(rows[0]).toContain("12 values");
  expect(rows[1]).toContain("3 rows, not accepted yet");
  expect(rows[2]).toBe("p. 4no kind of tableNotes");
  await userEvent.click(screen.getByRole("button", { name: /modes/ }));
  expect(onChoose).toHaveBeenCalledWith("B");
});

it("shows nothing for a file without tables", () => {
  const { container } = show(
    <TableList tables={[]} acceptedOf={() => undefined} chosen="" titled={titled} onChoose={vi.fn()} />,
  );
  expect(container.querySelector("ul")).toBeNull();
});

it("offers to change the answers of an accepted table and to remove it", async () => {
  const [onAgain, onRemove] = [vi.fn(), vi.fn()];
  show(
    <AcceptedTable
      review="r"
      exhibit={1}
      table={accepted}
      label="A"
      title="stories"
      editable
      preview={false}
      framed={undefined}
      onAgain={onAgain}
      onRemove={onRemove}
      onClose={vi.fn()}
    />,
  );
  expect(screen.getByText(/12 values accepted\./)).toBeInTheDocument();
  await userEvent.click(screen.getByRole("button", { name: "Change the answers" }));
  expect(onAgain.mock.calls[0]?.[0]).toMatchObject({ replaces: 7, kind: "stories", reading: { units: { h: "m" } } });
  await userEvent.click(screen.getByRole("button", { name: "Remove it" }));
  expect(onRemove).toHaveBeenCalledOnce();
});

it("says which rows of an accepted table are not read, and why", () => {
  const part = { rows: [4, 7], quantities: ["V"], question: "'23o' is not a number" };
  const table = { ...accepted, open_parts: [part, { ...part, rows: [], question: "the unit is missing" }] };
  show(
    <AcceptedTable
      review="r"
      exhibit={1}
      table={table}
      label="A"
      title="stories"
      editable={false}
      preview={false}
      framed={undefined}
      onAgain={vi.fn()}
      onRemove={vi.fn()}
      onClose={vi.fn()}
    />,
  );
  expect(screen.getByText("rows 4, 7 not read: '23o' is not a number")).toBeInTheDocument();
  expect(screen.getByText("a column not read: the unit is missing")).toBeInTheDocument();
});

it("shows the progress of a reading, and why nothing was read", async () => {
  const onStop = vi.fn();
  const reading = { status: "reading", phase: "page 2 of 5", share: 0.4, message: "", remedy: "" } as never;
  const { unmount } = show(<ReadingStatus name="a.pdf" reading={reading} onStop={onStop} />);
  expect(screen.getByRole("status")).toHaveTextContent("page 2 of 5");
  await userEvent.click(screen.getByRole("button", { name: "stop" }));
  expect(onStop).toHaveBeenCalledOnce();
  unmount();
  const refused = { status: "refused", message: "the document is locked with a password", remedy: "Save it." } as never;
  show(<ReadingStatus name="a.pdf" reading={refused} onStop={onStop} />);
  expect(screen.getByRole("alert")).toHaveTextContent("the document is locked with a password. Save it.");
});

it("turns a typed value into a table of one parameter", async () => {
  const onTyped = vi.fn();
  show(<TypeValue onTyped={onTyped} />);
  const [item, value] = screen.getAllByRole("textbox");
  expect(screen.getByRole("button")).toBeDisabled();
  if (item && value) {
    await userEvent.type(item, " T_a X ");
    await userEvent.type(value, "0.62 s");
  }
  await userEvent.click(screen.getByRole("button"));
  expect(onTyped).toHaveBeenCalledWith("Item\tValue\nT_a X\t0.62 s\n");
});
