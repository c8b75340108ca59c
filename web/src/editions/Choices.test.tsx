import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it, vi } from "vitest";
import type { Brief, Edition } from "../shared/api/client";
import { show } from "../review/testing";
import { Choices } from "./Choices";

const EDITION = {
  id: "asce7-16",
  choices: [{ name: "supplements", words: "Supplements that hold", sets: [[1, 3], [1], []], standing: [1, 3] }],
  permissions: [{ name: "short_period_cap", words: "S_DS for C_s at most 1.0 (12.8.1.3)" }],
} as unknown as Edition;

function choices(brief: Partial<Brief>, edition = EDITION) {
  const written: Brief[] = [];
  const change = vi.fn((edit: (b: Brief) => void) => {
    const copy = structuredClone({ edition: "asce7-16", ...brief });
    edit(copy);
    written.push(copy);
  });
  show(<Choices edition={edition} brief={{ edition: "asce7-16", ...brief }} change={change} />);
  return written;
}

it("takes no permission unless it is ticked", async () => {
  const written = choices({});
  const box = screen.getByRole("checkbox");
  expect(box).not.toBeChecked();
  await userEvent.click(box);
  expect(written[0]?.site).toEqual({ short_period_cap: true });
});

it("writes what a comparison edition is permitted into its own part", async () => {
  const written = choices({ edition: "en1998-1" });
  await userEvent.click(screen.getByRole("checkbox"));
  expect(written[0]?.comparisons?.["asce7-16"]?.site).toEqual({ short_period_cap: true });
  expect(written[0]?.site).toBeUndefined();
});

it("shows which corrections of the code hold, by default those that the edition says", () => {
  choices({});
  expect(screen.getByLabelText("Supplements that hold", { selector: "input" })).toHaveValue("1 and 3");
});
