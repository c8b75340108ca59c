import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, test, vi } from "vitest";
import type { Run } from "../shared/api/client";
import { show } from "../review/testing";
import { RunStatus } from "./RunStatus";

const run = (changes: Partial<Run>): Run => ({
  id: "r",
  kind: "modal",
  status: "running",
  phase: "modes",
  share: 0.4,
  attempts: 1,
  problems: [],
  engine: "t",
  created_at: "",
  finished_at: null,
  result: null,
  ...changes,
});
const shown = (changes: Partial<Run>, cancel = vi.fn(), again = vi.fn()) =>
  show(<RunStatus run={run(changes)} error={null} asking={false} cancel={cancel} again={again} />);

test("a run tells its phase and can be cancelled", async () => {
  const cancel = vi.fn();
  shown({}, cancel);
  expect(screen.getByRole("status")).toHaveTextContent("modes…");
  expect(screen.getByRole("progressbar")).toHaveAttribute("aria-valuenow", "40");
  await userEvent.click(screen.getByRole("button", { name: "Cancel" }));
  expect(cancel).toHaveBeenCalled();
});

test("a queued run waits for a worker", () => {
  shown({ status: "queued", phase: "", share: 0 });
  expect(screen.getByRole("status")).toHaveTextContent("waiting for a worker");
});

test("a refused run says why and what to do; running it again would change nothing", () => {
  shown({ status: "refused", problems: [{ path: "/", message: "the model is a mechanism", remedy: "Fix a node." }] });
  expect(screen.getByRole("alert")).toHaveTextContent("The model is a mechanism. Fix a node.");
  expect(screen.queryByRole("button")).toBeNull();
});

test("a cancelled or failed run can be run again", async () => {
  const again = vi.fn();
  shown({ status: "cancelled" }, vi.fn(), again);
  await userEvent.click(screen.getByRole("button", { name: "Run again" }));
  expect(again).toHaveBeenCalled();
});
