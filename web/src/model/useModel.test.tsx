import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, test } from "vitest";
import { server, show } from "../review/testing";
import { useModel } from "./useModel";

function Line() {
  const own = useModel("r");
  const line = own.model.lateral_lines?.[0];
  return (
    <>
      <p>
        x = {line?.at[0]}, state {own.number}
        {own.error ? ", refused" : ""}
      </p>
      <button
        onClick={() => {
          own.change((m) => {
            const l = m.lateral_lines?.[0];
            if (l) l.at = [(l.at[0] ?? 0) + 1, 0];
          });
        }}
      >
        move
      </button>
    </>
  );
}

const at = (x: number) => ({ lateral_lines: [{ story: 0, at: [x, 0], angle: 0, stiffness: 1, name: "" }] });

test("changes one upon the other are saved one after the other, each on the state before it", async () => {
  let number = 1;
  const asked = server({
    "GET /api/reviews/r/model/": () => [200, { number: 1, can_undo: false, model: at(0) }],
    "PUT /api/reviews/r/model/": (body) => {
      const { model, based_on } = body as { model: unknown; based_on: number };
      if (based_on !== number)
        return [
          409,
          { errors: [{ path: "/", message: "somebody changed the model in the meantime", remedy: "Load it again." }] },
        ];
      number += 1;
      return [200, { number, can_undo: true, model }];
    },
  });
  show(<Line />);
  await screen.findByText("x = 0, state 1");
  const user = userEvent.setup({ delay: null });
  for (let i = 0; i < 3; i++) await user.click(screen.getByRole("button", { name: "move" }));
  // seen at once, saved in their order
  expect(screen.getByText(/^x = 3/)).toBeInTheDocument();
  await screen.findByText("x = 3, state 4");
  const saves = asked
    .filter((a) => a.method === "PUT")
    .map((a) => a.body as { based_on: number; model: ReturnType<typeof at> });
  expect(saves.map((s) => [s.based_on, s.model.lateral_lines[0]?.at[0]])).toEqual([
    [1, 1],
    [2, 2],
    [3, 3],
  ]);
});

test("what is refused is taken back, and said", async () => {
  server({
    "GET /api/reviews/r/model/": () => [200, { number: 1, can_undo: false, model: at(0) }],
    "PUT /api/reviews/r/model/": () => [
      422,
      { errors: [{ path: "/lateral_lines/0/at/0", message: "too far", remedy: "Nearer." }] },
    ],
  });
  show(<Line />);
  await screen.findByText("x = 0, state 1");
  await userEvent.click(screen.getByRole("button", { name: "move" }));
  await waitFor(() => {
    expect(screen.getByText("x = 0, state 1, refused")).toBeInTheDocument();
  });
});
