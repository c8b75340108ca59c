import { Button, Select, Textarea, TextInput, Tooltip } from "@mantine/core";
import { notifications } from "@mantine/notifications";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useCallback, useRef, useState } from "react";
import { Link } from "react-router";
import { useKey } from "../review/keys";
import { useReviewContext } from "../review/ReviewContext";
import { answered, api, type Check, type Finding, type Schemas, type Severity } from "../shared/api/client";
import { offeredQuery, useRefresh } from "../shared/api/queries";
import { SymbolText } from "../shared/Symbol";
import { Problems } from "../shared/Problems";
import { titleOf } from "../shared/titles";
import { useDraft } from "../shared/useDraft";
import { strings } from "./strings";

interface Props {
  check: Check;
  /** findings that the check is in already */
  filed: Finding[];
}

/** A finding drafted from the check, to edit and to file. */
export function Remark({ check, filed }: Props) {
  const { review, recheck, findings } = useReviewContext();
  const reviewId = review.id;
  const next = findings.length + 1;
  const field = useRef<HTMLTextAreaElement>(null);
  useKey(
    "remark",
    useCallback(() => field.current?.focus(), []),
  );
  const refresh = useRefresh(reviewId);
  const draft = `${reviewId} ${check.id}`;
  const [text, setText, forgetText] = useDraft(`${draft} text`, check.draft);
  const [title, setTitle, forgetTitle] = useDraft(`${draft} title`, titleOf(check));
  const submission = Number(recheck?.submission.slice(1) ?? 0);
  const [severity, setSeverity] = useState<Severity>(check.verdict === "agrees" ? "note" : "must");
  const following = (recheck?.checks ?? []).filter((c) => c.rests_on.includes(check.id));
  const file = useMutation({
    mutationFn: () =>
      answered(
        api.POST("/api/reviews/{review_id}/findings/", {
          params: { path: { review_id: reviewId } },
          body: {
            title,
            text,
            severity,
            clause: check.clause,
            checks: [check.id, ...following.slice(0, 200).map((c) => c.id)],
            submission,
          },
        }),
      ),
    onSuccess: async (finding) => {
      forgetText();
      forgetTitle();
      notifications.show({ message: strings.filedAsFinding(finding.number), color: "teal" });
      await refresh();
    },
  });

  return (
    <section>
      <div className="bench-part">
        <h3>{strings.remark}</h3>
      </div>
      {filed.map((f) => (
        <p key={f.id} className="bench-filed">
          {strings.inWord}
          <Link to={`/reviews/${reviewId}/findings?finding=${String(f.number)}`}>
            {strings.finding(f.number)}
          </Link>, {f.status}: <SymbolText text={f.title} />
        </p>
      ))}
      {filed.length === 0 && (
        <FromOffice
          check={check}
          submission={submission}
          onChoose={(chosen) => {
            setTitle(chosen.title);
            setText(chosen.text);
          }}
        />
      )}
      {filed.length === 0 && (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            file.mutate();
          }}
          onKeyDown={(e) => {
            if (e.key === "Enter" && (e.ctrlKey || e.metaKey)) {
              e.preventDefault();
              file.mutate();
            }
          }}
        >
          <TextInput
            aria-label={strings.titleOfTheFinding}
            value={title}
            onChange={(e) => {
              setTitle(e.currentTarget.value);
            }}
            mb={6}
            maxLength={200}
            required
          />
          <Textarea
            ref={field}
            id="remark"
            aria-label={strings.textOfTheFinding}
            autosize
            minRows={3}
            maxRows={10}
            value={text}
            required
            maxLength={5000}
            placeholder={strings.yourRemarkToTheSubmitter}
            onChange={(e) => {
              setText(e.currentTarget.value);
            }}
          />
          <Problems error={file.error} title={strings.theFindingWasNotFiled} />
          <div className="bench-file">
            <Tooltip label={strings.ctrlEnter}>
              <Button type="submit" color="dark" loading={file.isPending}>
                {strings.fileAsFinding(next)}
              </Button>
            </Tooltip>
            <Select
              aria-label={strings.severity}
              w={170}
              allowDeselect={false}
              value={severity}
              data={[
                { value: "must", label: strings.mustBeAnswered },
                { value: "should", label: strings.shouldBeAnswered },
                { value: "note", label: strings.forTheRecord },
              ]}
              onChange={(v) => {
                setSeverity(v ?? "must");
              }}
            />
            <span className="chip">
              {strings.restsOn}
              {following.length + 1}
              {strings.check}
              {following.length ? "s" : ""}
            </span>
          </div>
        </form>
      )}
    </section>
  );
}

interface FromOfficeProps {
  check: Check;
  submission: number;
  onChoose: (remark: Schemas["OfferedRemark"]) => void;
}

/** What is there already for such a check: remarks of the office's library, and findings that it can be linked to. */
function FromOffice({ check, submission, onChoose }: FromOfficeProps) {
  const { review, findings } = useReviewContext();
  const refresh = useRefresh(review.id);
  const offered = useQuery(offeredQuery(review.id, check.id, submission));
  const link = useMutation({
    mutationFn: (finding: number) =>
      answered(
        api.POST("/api/findings/{finding_id}/checks/", {
          params: { path: { finding_id: finding } },
          body: { check_id: check.id, submission },
        }),
      ),
    onSuccess: refresh,
  });
  const open = findings.filter((f) => f.status !== "settled" && f.status !== "withdrawn");
  const remarks = offered.data ?? [];
  return (
    <div className="bench-file">
      {remarks.length > 0 && (
        <Select
          aria-label={strings.fromTheLibrary}
          placeholder={strings.fromTheLibrary}
          size="xs"
          w={220}
          value={null}
          data={remarks.map((r) => ({ value: String(r.id), label: [r.code, r.title].filter(Boolean).join(" · ") }))}
          onChange={(v) => {
            const chosen = remarks.find((r) => String(r.id) === v);
            if (chosen) onChoose(chosen);
          }}
        />
      )}
      {open.length > 0 && (
        <Select
          aria-label={strings.linkToFinding}
          placeholder={strings.linkToFinding}
          size="xs"
          w={220}
          value={null}
          data={open.map((f) => ({ value: String(f.id), label: `${String(f.number)}. ${f.title}` }))}
          onChange={(v) => {
            if (v) link.mutate(Number(v));
          }}
        />
      )}
      <Problems error={link.error} title={strings.notLinked} />
    </div>
  );
}
