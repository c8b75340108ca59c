import { Button } from "@mantine/core";
import { useHotkeys } from "@mantine/hooks";
import { notifications } from "@mantine/notifications";
import { useMutation } from "@tanstack/react-query";
import { useReviewContext } from "../review/ReviewContext";
import { answered, api, type Explanation } from "../shared/api/client";
import { useRefresh } from "../shared/api/queries";
import { Mark } from "../shared/Mark";
import { Problems } from "../shared/Problems";
import { SymbolText } from "../shared/Symbol";
import { codesOf, startOf, wordsOf } from "./causes";
import "./causes.css";
import { restsOn } from "../shared/findings";
import { strings } from "./strings";

const MOST_CHECKS = 200;
const MOST_TITLE = 200;

/** The strip above a sheet under a cause: what it is, what agrees under it, and its finding in one stroke. */
export function AppliedCause({ cause }: { cause: Explanation }) {
  const { review, recheck, findings, causes, applyCause } = useReviewContext();
  const refresh = useRefresh(review.id);
  const start = recheck && startOf(cause, recheck.checks);
  const filed = findings.find((f) => start && restsOn(f, start.id));
  const file = useMutation({
    mutationFn: () =>
      answered(
        api.POST("/api/reviews/{review_id}/findings/", {
          params: { path: { review_id: review.id } },
          body: {
            title: `${start?.meaning ?? ""}: ${wordsOf(cause)}`.slice(0, MOST_TITLE),
            text: cause.remark,
            severity: "must",
            clause: start?.clause ?? "",
            // the origin first: the finding is of it
            checks: [...new Set([...(start ? [start.id] : []), ...cause.explains])].slice(0, MOST_CHECKS),
            submission: Number(recheck?.submission.slice(1) ?? 0),
          },
        }),
      ),
    onSuccess: async (finding) => {
      notifications.show({ message: strings.filed(finding.number), color: "teal" });
      applyCause(null);
      await refresh();
    },
  });
  const leave = () => {
    applyCause(null);
  };
  useHotkeys([
    ["Escape", leave],
    [
      strings.fileKey,
      () => {
        if (!filed && !file.isPending) file.mutate();
      },
    ],
  ]);
  return (
    <div className="cause-applied" role="status">
      <Mark shape="origin" />
      <b>{strings.appliedCause}</b>
      <span className="cause-words">
        <SymbolText text={wordsOf(cause)} /> {codesOf(cause) && `(${codesOf(cause)})`}
      </span>
      <span className="ours">{strings.agreeUnderIt(cause.explains.length, causes?.deviating ?? 0)}</span>
      <span className="cause-acts">
        <button type="button" className="linklike" onClick={leave}>
          {strings.leave} <span className="key">{strings.esc}</span>
        </button>
        {filed ? (
          <span className="quiet">{strings.inFinding(filed.number)}</span>
        ) : (
          <Button
            size="compact-sm"
            color="dark"
            loading={file.isPending}
            onClick={() => {
              file.mutate();
            }}
          >
            {strings.file}&nbsp;<span className="key">{strings.fileKey}</span>
          </Button>
        )}
      </span>
      <Problems error={file.error} title={strings.notFiled} />
    </div>
  );
}
