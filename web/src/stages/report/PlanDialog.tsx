import { ActionIcon, Button, Checkbox, Switch } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useReviewContext } from "../../review/ReviewContext";
import { answered, api, type Schemas } from "../../shared/api/client";
import { planQuery } from "../../shared/api/queries";
import { Problems } from "../../shared/Problems";
import { moved, withAll } from "./plan";
import { strings } from "./strings";

type Plan = Schemas["Plan"];

/** Which sections the report has, in which order, and how many signatures it requires. */
export function PlanDialog({ onDone }: { onDone: () => void }) {
  const { review } = useReviewContext();
  const plan = useQuery(planQuery(review.id));
  return plan.data ? <PlanForm key={plan.dataUpdatedAt} plan={plan.data} onDone={onDone} /> : null;
}

function PlanForm({ plan, onDone }: { plan: Plan; onDone: () => void }) {
  const { review } = useReviewContext();
  const client = useQueryClient();
  const [rows, setRows] = useState(() => withAll(plan.sections));
  const [two, setTwo] = useState(plan.two_signatures ?? false);
  const save = useMutation({
    mutationFn: () =>
      answered(
        api.PUT("/api/reviews/{review_id}/report/plan/", {
          params: { path: { review_id: review.id } },
          body: { sections: rows.filter((r) => r.shown).map((r) => r.id), two_signatures: two },
        }),
      ),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: planQuery(review.id).queryKey });
      onDone();
    },
  });
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <ol className="plan">
        {rows.map((row, i) => (
          <li key={row.id}>
            <Checkbox
              size="xs"
              label={strings.sections[row.id]}
              checked={row.shown}
              onChange={() => {
                setRows(rows.map((r) => (r === row ? { ...r, shown: !r.shown } : r)));
              }}
            />
            {([-1, 1] as const).map((by) => (
              <ActionIcon
                key={by}
                variant="subtle"
                color="gray"
                size="sm"
                aria-label={`${by < 0 ? strings.up : strings.down}: ${strings.sections[row.id]}`}
                disabled={i + by < 0 || i + by >= rows.length}
                onClick={() => {
                  setRows(moved(rows, i, by));
                }}
              >
                {by < 0 ? "↑" : "↓"}
              </ActionIcon>
            ))}
          </li>
        ))}
      </ol>
      <Switch
        size="xs"
        label={strings.twoSignatures}
        disabled={review.role !== "lead"}
        checked={two}
        onChange={(e) => {
          setTwo(e.currentTarget.checked);
        }}
      />
      <Problems error={save.error} title={strings.notSaved} />
      <Button type="submit" mt="md" color="dark" loading={save.isPending} disabled={!rows.some((r) => r.shown)}>
        {strings.save}
      </Button>
    </form>
  );
}
