import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link } from "react-router";
import { useReviewContext } from "./ReviewContext";
import { RunStatus } from "../model/RunStatus";
import { useModel, useRun } from "../model/useModel";
import { strings } from "../model/strings";

type Kind = "static_response" | "response_X" | "response_Y";

interface Props {
  kinds: [Kind] | [Kind, Kind];
  /** whether the recheck has these answers already */
  answered: boolean;
}

/** Requests the results of the reference model that a stage compares; the recheck is made anew once it answers. */
export function ReferenceResponse({ kinds, answered }: Props) {
  const { review } = useReviewContext();
  const client = useQueryClient();
  const model = useModel(review.id);
  const exists = model.number > 0 && !model.busy;
  const first = useRun(review.id, kinds[0], model.number, review.brief_number, exists && !answered);
  const second = useRun(review.id, kinds[1] ?? kinds[0], model.number, review.brief_number, exists && !answered);
  const done = first.answer !== undefined && second.answer !== undefined;
  const runs = `${first.run?.id ?? ""} ${second.run?.id ?? ""}`;
  useEffect(() => {
    // what waited for the answers can be said now
    if (done && !answered) void client.invalidateQueries({ queryKey: ["recheck", review.id] });
  }, [done, answered, runs, client, review.id]);
  if (answered || model.loading) return null;
  if (model.number === 0)
    return (
      <p className="quiet">
        {strings.thereIsNoReferenceModel}
        <Link to="../frame">{strings.createOne}</Link>.
      </p>
    );
  const open = [first, second].find((r) => r.error || r.asking || r.run?.status !== "done");
  return open ? <RunStatus {...open} /> : null;
}
