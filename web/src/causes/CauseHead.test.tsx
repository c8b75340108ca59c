import { fireEvent, screen } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { reviewContext, show } from "../review/testing";
import { CauseHead } from "./CauseHead";

const shown = (status: "running" | "stopped" | "failed", share: number) => {
  const change = vi.fn();
  show(<CauseHead />, undefined, reviewContext({ causeSearch: { status, share, change } }));
  return change;
};

test("a search of a large submission shows how far it is, and can be stopped", () => {
  const change = shown("running", 0.4);
  expect(screen.getByRole("progressbar")).toHaveAttribute("aria-valuenow", "40");
  fireEvent.click(screen.getByRole("button", { name: "Stop" }));
  expect(change).toHaveBeenCalledWith(false);
});

test.each(["stopped", "failed"] as const)("a search that %s can be begun anew", (status) => {
  const change = shown(status, 0.4);
  expect(screen.queryByRole("progressbar")).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: "Search again" }));
  expect(change).toHaveBeenCalledWith(true);
});
