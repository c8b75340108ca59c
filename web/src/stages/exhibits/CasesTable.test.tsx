import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it } from "vitest";
import { recheckOf, reviewContext, server, show } from "../../review/testing";
import type { Submission } from "../../shared/api/client";
import { check } from "../../sheet/testing";
import { CasesTable } from "./CasesTable";

const STATIC = { id: 4, revision: 2, name: "EX", kind: "static", direction: "X", eccentricity: 0.05, level: "reduced" };
const UNSTATED = { id: 5, revision: 1, name: "SPEC 2", kind: null, direction: null, eccentricity: null, level: null };

function table(answer: [number, unknown] = [200, STATIC]) {
  const asked = server({ "PATCH /api/cases/4/": () => answer, "PATCH /api/cases/5/": () => [200, UNSTATED] });
  const submission = { id: 1, label: "S0", cases: [STATIC, UNSTATED] } as Submission;
  const recheck = recheckOf([check({ id: "A_x.X" })]);
  show(<CasesTable submission={submission} />, "/reviews/r/exhibits", reviewContext({ recheck }));
  return asked;
}

it("counts the cases whose role is not stated", () => {
  table();
  expect(screen.getByText(/2 cases of S0/)).toHaveTextContent("1 ");
  expect(screen.getByLabelText("Kind of SPEC 2")).toHaveValue("");
  expect(screen.getByLabelText("Direction of EX")).toHaveValue("X");
});

it("changes a role with the revision it is based on, and says that no verdict changed", async () => {
  const asked = table();
  await userEvent.selectOptions(screen.getByLabelText("Results of EX"), "amplified");
  expect(await screen.findByRole("status")).toHaveTextContent(/EX changed.*no verdict/);
  expect(asked.find((a) => a.method === "PATCH")).toMatchObject({
    path: "/api/cases/4/",
    body: { level: "amplified" },
  });
});

it("has a scaling for modal cases only", () => {
  table();
  expect(screen.queryByLabelText("Scaling of EX")).not.toBeInTheDocument();
});

it("reads the side of the mass in percent, and sends nothing that cannot be read", async () => {
  const asked = table();
  const field = screen.getByLabelText(/^Side of the mass in EX/);
  expect(field).toHaveValue("+5 %");
  await userEvent.clear(field);
  await userEvent.type(field, "left{Enter}");
  expect(field).toHaveAttribute("aria-invalid", "true");
  await userEvent.clear(field);
  await userEvent.type(field, "-5{Enter}");
  await waitFor(() => {
    expect(asked.filter((a) => a.method === "PATCH").map((a) => a.body)).toEqual([{ eccentricity: -0.05 }]);
  });
});

it("says why a role was not changed", async () => {
  table([412, { errors: [{ path: "/", message: "the case was changed by Jonas Reed", remedy: "Look again." }] }]);
  await userEvent.selectOptions(screen.getByLabelText("Kind of EX"), "");
  expect(await screen.findByText(/the case was changed by Jonas Reed/i)).toBeInTheDocument();
});
