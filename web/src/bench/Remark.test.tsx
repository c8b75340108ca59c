import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it } from "vitest";
import { recheckOf, reviewContext, server, show } from "../review/testing";
import type { Check, Finding } from "../shared/api/client";
import { check } from "../sheet/testing";
import { Remark } from "./Remark";

const DRIFT = check({
  id: "drift_ratio.X.L3",
  meaning: "Story drift",
  direction: "X",
  story: "L3",
  verdict: "breaches",
  limit: { value: 0.02, side: "max", quantity: "limit", symbol: "", clause: "12.12.1", governed_by: null },
  clause: "12.12.1",
  draft: "The drift of L3 exceeds the limit.",
});
const DEPENDS = check({ id: "theta.X.L3", rests_on: ["drift_ratio.X.L3"] });
const POST = "POST /api/reviews/r/findings/";

function remark(of: Check = DRIFT, filed: Finding[] = [], answer: [number, unknown] = [201, { number: 1 }]) {
  const asked = server({ [POST]: () => answer });
  show(
    <Remark check={of} filed={filed} />,
    "/reviews/r/sheet",
    reviewContext({ recheck: recheckOf([of, DEPENDS]), findings: [] }),
  );
  return asked;
}

it("drafts title, text and severity, and files them with the checks that depend on it", async () => {
  const asked = remark();
  expect(screen.getByLabelText("Title of the finding")).toHaveValue("Story drift X L3 exceeds the limit");
  expect(screen.getByText(/2 checks/)).toBeInTheDocument();
  await userEvent.click(screen.getByRole("button", { name: "File as finding 1" }));
  await waitFor(() => {
    expect(asked.find((a) => a.method === "POST")?.body).toEqual({
      title: "Story drift X L3 exceeds the limit",
      text: "The drift of L3 exceeds the limit.",
      severity: "must",
      clause: "12.12.1",
      checks: ["drift_ratio.X.L3", "theta.X.L3"],
      submission: 0,
    });
  });
});

it("is filed with Ctrl+Enter from the text, once it was edited", async () => {
  const asked = remark();
  await userEvent.type(screen.getByLabelText("Text of the finding"), " Please revise.{Control>}{Enter}{/Control}");
  await waitFor(() => {
    expect(asked.find((a) => a.method === "POST")?.body).toMatchObject({
      text: "The drift of L3 exceeds the limit. Please revise.",
    });
  });
});

it.each<[Partial<Check>, RegExp]>([
  [{ verdict: "gap", meaning: "Stability coefficient", direction: null, story: null }, /is not stated/],
  [{ verdict: "question", meaning: "Period", direction: "Y", story: null }, /^Period Y needs an explanation/],
  [{ verdict: "open", meaning: "Period", direction: "Y", story: null }, /^Period Y cannot be rechecked yet/],
])("titles the kind of remark %#", (changes, title) => {
  remark(check({ ...DRIFT, ...changes }));
  expect(screen.getByLabelText<HTMLInputElement>("Title of the finding").value).toMatch(title);
});

it("keeps the text and says why it was not filed", async () => {
  remark(DRIFT, [], [422, { errors: [{ path: "/text", message: "a text is required", remedy: "Write a text." }] }]);
  await userEvent.click(screen.getByRole("button", { name: "File as finding 1" }));
  expect(await screen.findByText(/a text is required/i)).toBeInTheDocument();
  expect(screen.getByLabelText("Text of the finding")).toHaveValue("The drift of L3 exceeds the limit.");
});

it("links the finding that the check is in already", () => {
  remark(DRIFT, [{ id: 9, number: 4, status: "issued", title: "Drift of L3" } as unknown as Finding]);
  expect(screen.getByRole("link", { name: /finding 4/i })).toHaveAttribute("href", "/reviews/r/findings?finding=4");
  expect(screen.queryByLabelText("Text of the finding")).not.toBeInTheDocument();
});
