import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it } from "vitest";
import { server, show } from "../review/testing";
import { ReviewsPage } from "./ReviewsPage";

const summary = (title: string, status: "open" | "closed", open_findings = 0) => ({
  id: title,
  title,
  status,
  place: "Port Maren, Hesper Isles",
  client: "",
  edition: "asce7-16",
  role: "lead",
  submission: "S0",
  created_at: "2026-03-01T00:00:00Z",
  next: "you",
  days: 3,
  due: null,
  overdue: false,
  findings: open_findings ? { must: open_findings } : {},
  mine: 0,
  plumb: null,
  news: 0,
  latest: [],
  archived: false,
});

function list(...reviews: ReturnType<typeof summary>[]) {
  server({
    "GET /api/desk/": () => [200, reviews],
    "GET /api/vocabulary/": () => [200, { stages: [] }],
    "GET /api/session/": () => [200, { person: { name: "Ilse Varga", administers: false }, mail_is_caught: false }],
    "GET /api/editions/": () => [200, []],
  });
  show(<ReviewsPage />, "/");
}

const titles = () =>
  within(screen.getByRole("navigation", { name: "Reviews" }))
    .queryAllByRole("link")
    .map((a) => a.querySelector("strong")?.textContent);

it("shows open reviews, and closed ones behind the filter", async () => {
  list(summary("Gull Rock Station", "open"), summary("Old Mole Store", "closed"));
  await screen.findByText("Gull Rock Station");
  expect(titles()).toEqual(["Gull Rock Station"]);
  await userEvent.click(screen.getByText("Closed (1)"));
  expect(titles()).toEqual(["Old Mole Store"]);
  expect(screen.getByText("closed")).toBeInTheDocument();
  await userEvent.click(screen.getByText("All (2)"));
  expect(titles()).toEqual(["Gull Rock Station", "Old Mole Store"]);
});

it("has no filter while nothing is closed, and counts findings", async () => {
  list(summary("Gull Rock Station", "open", 1), summary("Quay House", "open", 0));
  await screen.findByText("1 open finding");
  expect(screen.getByText("no open findings")).toBeInTheDocument();
  expect(screen.queryByRole("radiogroup", { name: "Which reviews" })).not.toBeInTheDocument();
});

it("says that no review is open where all are closed", async () => {
  list(summary("Old Mole Store", "closed"));
  expect(await screen.findByText("No review is open.")).toBeInTheDocument();
});

it("says how to start where there is none", async () => {
  list();
  expect(await screen.findByText(/There are no reviews yet/)).toBeInTheDocument();
});
