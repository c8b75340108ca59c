import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it } from "vitest";
import { server, show } from "../review/testing";
import LibraryPage from "./LibraryPage";

const REMARK = {
  id: 4,
  code: "S15",
  title: "Site coefficient",
  text: "{label} is {submitted}.",
  author: "Ilse Varga",
  changed_at: "2026-03-01T00:00:00Z",
  revision: 2,
};
const answers = {
  "GET /api/remarks/": () => [200, [REMARK]] as [number, unknown],
  "GET /api/vocabulary/": () => [200, { stages: [], catalogue: [] }] as [number, unknown],
};

it("saves a remark as it was seen", async () => {
  const asked = server({ ...answers, "PATCH /api/remarks/4/": () => [200, { ...REMARK, revision: 3 }] });
  show(<LibraryPage />, "/library");
  await userEvent.click(await screen.findByRole("button", { name: "Site coefficient" }));
  await userEvent.type(screen.getByLabelText(/Text/), " Why?");
  await userEvent.click(screen.getByRole("button", { name: "Save" }));
  await waitFor(() => {
    expect(asked.find((a) => a.method === "PATCH")?.body).toEqual({
      code: "S15",
      title: "Site coefficient",
      text: "{label} is {submitted}. Why?",
    });
  });
});

it("says what is wrong with a file that is no library", async () => {
  server(answers);
  const { container } = show(<LibraryPage />, "/library");
  await screen.findByText("Site coefficient");
  const input = container.querySelector<HTMLInputElement>("input[type=file]");
  if (input) await userEvent.upload(input, new File(["{"], "notes.json", { type: "application/json" }));
  expect(await screen.findByText(/notes.json is not an exported library/i)).toBeInTheDocument();
});
