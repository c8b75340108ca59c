import { cleanup, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it } from "vitest";
import { reviewContext, server, show, side, source } from "../../review/testing";
import type { Finding, Review } from "../../shared/api/client";
import { check } from "../../sheet/testing";
import FindingsPage from "./FindingsPage";

afterEach(() => {
  localStorage.clear();
});

const EVIDENCE = check({
  id: "C_s.X",
  label: "C_s X",
  verdict: "differs",
  role: "origin",
  unit: "",
  theirs: { value: 0.08, text: "0.080", unit: "", source },
  carried: side(0.1, -0.2, -20),
  independent: side(0.11, -0.27, -27),
});

function finding(changes: Partial<Finding>): Finding {
  return {
    id: 1,
    number: 1,
    revision: 3,
    title: "Response coefficient X",
    text: "C_s is submitted as 0.080.",
    severity: "must",
    status: "draft",
    clause: "12.8.1.1",
    author: "Ilse Varga",
    created_at: "2026-03-02T09:00:00Z",
    submission: "S0",
    origin: null,
    evidence: [EVIDENCE],
    further: [],
    attachments: [],
    assignee: null,
    due: null,
    merged_into: null,
    thread: [],
    next_states: ["issued", "withdrawn"],
    ...changes,
  } as unknown as Finding;
}

function page(findings: Finding[], role: Review["role"] = "lead", answers: Parameters<typeof server>[0] = {}) {
  const asked = server(answers);
  const review = { id: "r", title: "Gull Rock Station", submissions: [], team: [], role } as unknown as Review;
  show(<FindingsPage />, "/reviews/r/findings", reviewContext({ review, findings }));
  return asked;
}

const register = () => within(screen.getByRole("main")).getAllByRole("button", { name: "Response coefficient X" });

describe("the register", () => {
  it("shows all findings, or those that are open", async () => {
    page([finding({}), finding({ id: 2, number: 2, title: "Base shear", status: "settled", evidence: [] })]);
    await userEvent.click(screen.getByText("open 1"));
    expect(screen.queryByRole("button", { name: "Base shear" })).not.toBeInTheDocument();
    await userEvent.click(screen.getByText("all 2"));
    await userEvent.click(screen.getByRole("button", { name: "Base shear" }));
    expect(screen.getByRole("complementary", { name: "Finding 2" })).toBeInTheDocument();
  });

  it("says how to file the first finding, and to a submitter that none was issued", () => {
    page([]);
    expect(screen.getByText(/No findings yet/)).toHaveTextContent("Select a deviation on the sheet");
    page([], "submitter");
    expect(screen.getByText("No finding has been issued to you yet.")).toBeInTheDocument();
  });
});

describe("several findings", () => {
  it("are changed together, each as it was seen", async () => {
    const asked = page([finding({}), finding({ id: 2, number: 2, title: "Base shear", revision: 5 })], "lead", {
      "PATCH /api/reviews/r/findings/": () => [200, []],
    });
    await userEvent.click(screen.getByLabelText("Choose all findings"));
    await userEvent.click(within(screen.getByRole("toolbar")).getByRole("button", { name: "Issue" }));
    await waitFor(() => {
      expect(asked.find((a) => a.method === "PATCH")?.body).toEqual({
        status: "issued",
        findings: [
          { number: 1, revision: 3 },
          { number: 2, revision: 5 },
        ],
      });
    });
  });
});

describe("a draft", () => {
  it("keeps what is typed in this browser until it is saved", async () => {
    page([finding({})]);
    await userEvent.type(screen.getByLabelText("Text"), " Why?");
    cleanup();
    page([finding({})]);
    expect(screen.getByLabelText("Text")).toHaveValue("C_s is submitted as 0.080. Why?");
  });

  it("shows the evidence as filed: theirs, the carried value of an origin, the deviation", () => {
    page([finding({})]);
    const cells = within(screen.getByRole("complementary")).getAllByRole("cell");
    expect(cells.map((c) => c.textContent)).toEqual([expect.stringContaining("C"), "0.080", "0.100", "−20.0 %"]);
  });

  it("sends only what was changed, with the revision it is based on", async () => {
    const asked = page([finding({})], "lead", {
      "PATCH /api/findings/1/": () => [200, finding({ title: "C_s in X", revision: 4 })],
    });
    expect(screen.getByRole("button", { name: "Save" })).toBeDisabled();
    const title = screen.getByLabelText("Title");
    await userEvent.clear(title);
    await userEvent.type(title, "C_s in X");
    // a text that is not saved is not issued
    expect(screen.getByRole("button", { name: "Issue" })).toBeDisabled();
    await userEvent.click(screen.getByRole("button", { name: "Save" }));
    await waitFor(() => {
      expect(asked.find((a) => a.method === "PATCH")?.body).toEqual({ title: "C_s in X" });
    });
  });

  it("keeps what was typed where somebody else was quicker, and says so", async () => {
    page([finding({})], "lead", {
      "PATCH /api/findings/1/": () => [
        412,
        {
          title: "Precondition failed",
          errors: [{ path: "/", message: "the finding was changed", remedy: "Compare both texts." }],
        },
      ],
    });
    await userEvent.type(screen.getByLabelText("Text"), " Why?");
    await userEvent.click(screen.getByRole("button", { name: "Save" }));
    expect(await screen.findByText(/the finding was changed/i)).toBeInTheDocument();
    expect(screen.getByLabelText("Text")).toHaveValue("C_s is submitted as 0.080. Why?");
  });

  it("is issued with one press", async () => {
    const asked = page([finding({})], "reviewer", {
      "PATCH /api/findings/1/": () => [200, finding({ status: "issued" })],
    });
    await userEvent.click(screen.getByRole("button", { name: "Issue" }));
    await waitFor(() => {
      expect(asked.find((a) => a.method === "PATCH")?.body).toEqual({ status: "issued" });
    });
  });
});

describe("an issued finding", () => {
  const ISSUED = finding({
    status: "answered",
    next_states: ["issued", "settled"],
    thread: [{ author: "Mira Oduya", at: "2026-03-04T10:00:00Z", text: "R of 8 was used." }],
  } as unknown as Partial<Finding>);

  it("cannot be edited; its thread is shown", () => {
    page([ISSUED]);
    expect(screen.queryByLabelText("Title")).not.toBeInTheDocument();
    expect(screen.getByText("R of 8 was used.")).toBeInTheDocument();
    expect(screen.getByRole("button", { name: "Issue again" })).toBeEnabled();
    expect(register()).toHaveLength(1);
  });

  it("is answered by the submitter, who has no links to the sheet and no actions", async () => {
    const asked = page([ISSUED], "submitter", { "POST /api/findings/1/messages/": () => [201, {}] });
    expect(screen.queryByRole("button", { name: "Close" })).not.toBeInTheDocument();
    expect(within(screen.getByRole("complementary")).queryByRole("link")).not.toBeInTheDocument();
    await userEvent.type(screen.getByLabelText("Your answer"), "See sheet 4.");
    await userEvent.click(screen.getByRole("button", { name: "Answer" }));
    await waitFor(() => {
      expect(asked.find((a) => a.method === "POST")?.body).toEqual({ text: "See sheet 4." });
    });
  });

  it("is only read by a reader", () => {
    page([ISSUED], "reader");
    expect(screen.queryByRole("textbox")).not.toBeInTheDocument();
  });

  it("is marked where the evidence of an import differs", () => {
    page([
      finding({
        status: "issued",
        origin: { author: "A. Tran", differs: ["C_s X"], unknown: [] },
      } as unknown as Partial<Finding>),
    ]);
    expect(screen.getByText(/Its evidence differs from the recheck here for/)).toBeInTheDocument();
  });
});
