import { Button } from "@mantine/core";
import { notifications } from "@mantine/notifications";
import { useMutation } from "@tanstack/react-query";
import { useReviewContext } from "../../review/ReviewContext";
import { answered, api } from "../../shared/api/client";
import { useRefresh } from "../../shared/api/queries";
import { Problems } from "../../shared/Problems";
import { titleOf } from "../../shared/titles";
import type { SheetRow } from "../../sheet/layout";
import { checksOf } from "../../shared/findings";
import { strings } from "../../sheet/strings";

/** The questions that are shown and are in no finding yet, each drafted as a finding at one click. */
export function FileQuestions({ rows }: { rows: SheetRow[] }) {
  const { review, recheck, findings } = useReviewContext();
  const refresh = useRefresh(review.id);
  const filed = new Set(findings.filter((f) => f.status !== "withdrawn").flatMap(checksOf));
  const open = rows.flatMap((r) => r.all).filter((c) => c.verdict === "question" && !filed.has(c.id));
  const file = useMutation({
    // one after the other: the findings are numbered in the order of the sheet
    mutationFn: async () => {
      for (const check of open)
        await answered(
          api.POST("/api/reviews/{review_id}/findings/", {
            params: { path: { review_id: review.id } },
            body: {
              title: titleOf(check),
              text: check.draft,
              severity: "should",
              clause: check.clause,
              checks: [check.id],
              submission: Number(recheck?.submission.slice(1) ?? 0),
            },
          }),
        );
      return open.length;
    },
    onSuccess: (count) => {
      notifications.show({ message: strings.filed(count), color: "teal" });
    },
    onSettled: refresh,
  });
  if (open.length === 0 && !file.error) return null;
  return (
    <>
      <Button
        size="compact-sm"
        color="dark"
        loading={file.isPending}
        onClick={() => {
          file.mutate();
        }}
      >
        {strings.fileQuestions(open.length)}
      </Button>
      <Problems error={file.error} title={strings.notFiled} />
    </>
  );
}
