import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it, vi } from "vitest";
import type { Brief, Edition } from "../shared/api/client";
import { server, show } from "../review/testing";
import { HazardLookup } from "./HazardLookup";

const EDITION = {
  id: "asce7-16",
  title: "ASCE/SEI 7-16",
  inputs: [{ name: "S_S", unit: "g", options: [] }],
} as unknown as Edition;
const BRIEF = { edition: "asce7-16", site: { S_S: 0.9 } } as unknown as Brief;
const ANSWER = {
  edition: "asce7-16",
  version: "HI-2016.2",
  date: "2016-05-20",
  latitude: 47.6,
  longitude: -30.4,
  values: { S_S: 1.42 },
};

function lookup() {
  const change = vi.fn((edit: (b: Brief) => void) => {
    const copy = structuredClone(BRIEF);
    edit(copy);
    return copy;
  });
  show(<HazardLookup edition={EDITION} brief={BRIEF} change={change} />);
  return change;
}

async function ask() {
  await userEvent.type(screen.getByLabelText("Latitude"), "47.6{Tab}");
  await userEvent.type(screen.getByLabelText("Longitude"), "-30,4{Tab}");
  await userEvent.click(screen.getByRole("button", { name: "Look up" }));
}

it("shows values with version and date, and takes them over only when told", async () => {
  server({ "GET /api/hazard/": () => [200, ANSWER] });
  const change = lookup();
  await ask();
  expect(await screen.findByRole("status")).toHaveTextContent("data HI-2016.2 of 2016-05-20");
  expect(change).not.toHaveBeenCalled();
  await userEvent.click(screen.getByRole("button", { name: "Use these values" }));
  expect(change.mock.results[0]?.value).toMatchObject({ site: { S_S: 1.42 } });
});

it("says that the service is down and what to do", async () => {
  server({
    "GET /api/hazard/": () => [
      503,
      {
        errors: [
          {
            path: "/hazard",
            message: "the hazard service does not respond",
            remedy: "Try again later, or enter the values.",
          },
        ],
      },
    ],
  });
  lookup();
  await ask();
  expect(await screen.findByRole("alert")).toHaveTextContent("enter the values");
});

it("cannot be asked without coordinates", () => {
  lookup();
  expect(screen.getByRole("button", { name: "Look up" })).toBeDisabled();
});
