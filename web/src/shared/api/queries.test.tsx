import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, test } from "vitest";
import { server, show } from "../../review/testing";
import type { Brief } from "./client";
import { useBriefChange, useReview } from "./queries";

function Tolerance() {
  const review = useReview("r").data;
  const { save, undo } = useBriefChange("r", undefined);
  if (!review) return null;
  const more = () => {
    save.mutate((brief) => {
      brief.tolerance = (brief.tolerance ?? 0) + 0.01;
    });
  };
  return (
    <>
      <p>
        {Math.round((review.brief.tolerance ?? 0) * 100)} %, state {review.brief_number}
        {save.error ? ", refused" : ""}
      </p>
      <button onClick={more}>more</button>
      <button
        onClick={() => {
          undo.mutate();
        }}
      >
        undo
      </button>
    </>
  );
}

const brief = (tolerance: number) => ({ edition: "custom", tolerance }) as unknown as Brief;
const REVIEW = { id: "r", brief: brief(0.01), brief_number: 1, can_undo: false };

test("changes one upon the other are saved in their order, each on the state that the one before it left", async () => {
  let number = 1;
  const asked = server({
    "GET /api/reviews/r/": () => [200, REVIEW],
    "PUT /api/reviews/r/brief/": (body) => {
      const sent = body as { brief: Brief; based_on: number };
      if (sent.based_on !== number)
        return [
          409,
          { errors: [{ path: "/", message: "somebody changed the brief in the meantime", remedy: "Load it again." }] },
        ];
      number += 1;
      return [200, { brief: sent.brief, brief_number: number, can_undo: true, recheck: {} }];
    },
  });
  show(<Tolerance />);
  await screen.findByText("1 %, state 1");
  const user = userEvent.setup({ delay: null });
  for (let i = 0; i < 3; i++) await user.click(screen.getByText("more"));
  // seen at once, saved in their order
  expect(screen.getByText(/^4 %/)).toBeInTheDocument();
  await screen.findByText("4 %, state 4");
  expect(asked.filter((a) => a.method === "PUT").map((a) => (a.body as { based_on: number }).based_on)).toEqual([
    1, 2, 3,
  ]);
});

test("what is refused is taken back, and said", async () => {
  server({
    "GET /api/reviews/r/": () => [200, REVIEW],
    "PUT /api/reviews/r/brief/": () => [
      422,
      { errors: [{ path: "/brief/tolerance", message: "too much", remedy: "Less." }] },
    ],
  });
  show(<Tolerance />);
  await screen.findByText("1 %, state 1");
  await userEvent.click(screen.getByText("more"));
  await waitFor(() => {
    expect(screen.getByText("1 %, state 1, refused")).toBeInTheDocument();
  });
});

test("a change that comes second is put on top of what somebody else changed in the meantime", async () => {
  let kept = { ...REVIEW };
  const asked = server({
    "GET /api/reviews/r/": () => [200, kept],
    "PUT /api/reviews/r/brief/": (body) => {
      const sent = body as { brief: Brief; based_on: number };
      if (sent.based_on !== kept.brief_number)
        return [412, { errors: [{ path: "/", message: "Jonas Reed changed the brief in the meantime", remedy: "" }] }];
      kept = { ...kept, brief: sent.brief, brief_number: kept.brief_number + 1 };
      return [200, { brief: kept.brief, brief_number: kept.brief_number, can_undo: true, recheck: {} }];
    },
  });
  show(<Tolerance />);
  await screen.findByText("1 %, state 1");
  // somebody else's change, which this screen has not seen
  kept = { ...kept, brief: { ...brief(0.05), edition: "theirs" }, brief_number: 2 };
  const user = userEvent.setup({ delay: null });
  await user.click(screen.getByText("more"));
  await user.click(screen.getByText("more"));
  await screen.findByText("7 %, state 4");
  // nothing of theirs is lost, and the second change knows of it already
  expect((kept.brief as unknown as { edition: string }).edition).toBe("theirs");
  expect(asked.filter((a) => a.method === "PUT").map((a) => (a.body as { based_on: number }).based_on)).toEqual([
    1, 2, 3,
  ]);
});
