import { Button, Select, TextInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { useReviewContext } from "../../review/ReviewContext";
import { answered, api, type Finding, type Schemas } from "../../shared/api/client";
import { useRefresh } from "../../shared/api/queries";
import { Problems } from "../../shared/Problems";
import { strings } from "./strings";
import { SEVERITY } from "./words";

type Many = Omit<Schemas["PatchedManyRequest"], "findings" | "resolved">;

/** What is done with several findings at once: all of them or none. */
export function Bulk({ findings, onDone }: { findings: Finding[]; onDone: () => void }) {
  const { review } = useReviewContext();
  const refresh = useRefresh(review.id);
  const [due, setDue] = useState("");
  const path = { review_id: review.id };
  const change = useMutation({
    mutationFn: (what: Many) =>
      answered(
        api.PATCH("/api/reviews/{review_id}/findings/", {
          params: { path },
          body: { ...what, findings: findings.map(({ number, revision }) => ({ number, revision: revision ?? 0 })) },
        }),
      ),
    onSuccess: onDone,
    onSettled: refresh,
  });
  const [first, ...others] = [...findings].sort((a, b) => a.number - b.number);
  const merge = useMutation({
    mutationFn: () =>
      answered(
        api.POST("/api/findings/{finding_id}/merge/", {
          params: { path: { finding_id: first?.id ?? 0 } },
          body: { numbers: others.map((f) => f.number) },
        }),
      ),
    onSuccess: onDone,
    onSettled: refresh,
  });
  const may = (status: string) => findings.every((f) => f.next_states.includes(status));
  return (
    <div className="bulk" role="toolbar" aria-label={strings.withTheTicked(findings.length)}>
      <b>{strings.withTheTicked(findings.length)}</b>
      {(["issued", "settled", "withdrawn"] as const).map((status) => (
        <Button
          key={status}
          size="compact-sm"
          variant="default"
          disabled={!may(status)}
          loading={change.isPending}
          onClick={() => {
            change.mutate({ status });
          }}
        >
          {{ issued: strings.issue, settled: strings.close, withdrawn: strings.withdraw }[status]}
        </Button>
      ))}
      <Select
        aria-label={strings.severityLabel}
        placeholder={strings.severityLabel}
        size="xs"
        w={150}
        disabled={findings.some((f) => f.status !== "draft")}
        value={null}
        data={Object.entries(SEVERITY).map(([value, label]) => ({ value, label }))}
        onChange={(v) => {
          if (v) change.mutate({ severity: v as keyof typeof SEVERITY });
        }}
      />
      <Select
        aria-label={strings.assignee}
        placeholder={strings.assignee}
        size="xs"
        w={150}
        value={null}
        data={review.team.filter((m) => m.active).map((m) => ({ value: String(m.id), label: m.name }))}
        onChange={(v) => {
          if (v) change.mutate({ assignee: Number(v) });
        }}
      />
      <TextInput
        aria-label={strings.due}
        title={strings.due}
        type="date"
        size="xs"
        value={due}
        onChange={(e) => {
          setDue(e.currentTarget.value);
        }}
        onBlur={() => {
          if (due) change.mutate({ due });
        }}
      />
      {findings.length > 1 && first && (
        <Button
          size="compact-sm"
          variant="default"
          loading={merge.isPending}
          onClick={() => {
            merge.mutate();
          }}
        >
          {strings.mergeInto(first.number)}
        </Button>
      )}
      <Problems error={change.error ?? merge.error} title={strings.nothingWasChanged} />
    </div>
  );
}
