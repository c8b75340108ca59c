import { MantineProvider } from "@mantine/core";
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { typedNumber } from "./typedNumber";
import { ValueInput } from "./ValueInput";

describe("typed numbers", () => {
  it.each([
    ["1.5", 1.5],
    ["1,5", 1.5],
    ["12 400", 12400],
    [" .36 ", 0.36],
    ["", null],
    ["−2", -2],
    ["1.2.3", undefined],
    ["abc", undefined],
  ])("%s", (text, value) => {
    expect(typedNumber(text)).toBe(value);
  });
});

function show(onCommit: (v: number | null) => void) {
  render(
    <MantineProvider>
      <ValueInput label="S_S" value={1.2} onCommit={onCommit} />
    </MantineProvider>,
  );
  return screen.getByLabelText("S_S");
}

it("counts when Enter is pressed, and only if it changed", async () => {
  const commit = vi.fn();
  const field = show(commit);
  await userEvent.type(field, "{Enter}");
  expect(commit).not.toHaveBeenCalled();
  await userEvent.clear(field);
  await userEvent.type(field, "0.9{Enter}");
  expect(commit).toHaveBeenCalledExactlyOnceWith(0.9);
});

it("says what is not a number and keeps it back", async () => {
  const commit = vi.fn();
  const field = show(commit);
  await userEvent.type(field, "x");
  await userEvent.tab();
  expect(screen.getByText("Enter a number")).toBeInTheDocument();
  expect(commit).not.toHaveBeenCalled();
});

it("Escape takes back what was typed", async () => {
  const field = show(vi.fn());
  await userEvent.type(field, "99{Escape}");
  expect(field).toHaveValue("1.2");
});
