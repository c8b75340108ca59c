import { Button, Textarea, TextInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { useReviewContext } from "../../review/ReviewContext";
import { answered, api, type Check } from "../../shared/api/client";
import { useRefresh } from "../../shared/api/queries";
import { Mark, shapeOf, verdictWords } from "../../shared/Mark";
import { Problems } from "../../shared/Problems";
import { SymbolText } from "../../shared/Symbol";
import type { Requirement } from "./requirements";
import { restsOn } from "../../shared/findings";
import { strings } from "./strings";
import css from "./RequirementsPage.module.css";

interface Props {
  requirement: Requirement;
  edition: string;
  /** that state its absence */
  checks: Check[];
  onCheck: (id: string) => void;
}

/** A requirement that is not shown: the checks that say so, and the remark to the submitter. */
export function RequirementRemark({ requirement, edition, checks, onCheck }: Props) {
  const { review, recheck, findings } = useReviewContext();
  const refresh = useRefresh(review.id);
  const [title, setTitle] = useState(strings.notShown(requirement.words));
  const [text, setText] = useState(strings.draft(requirement.words, requirement.clause, edition));
  const filed = findings.filter((f) => requirement.checks.some((id) => restsOn(f, id)));
  const file = useMutation({
    mutationFn: () =>
      answered(
        api.POST("/api/reviews/{review_id}/findings/", {
          params: { path: { review_id: review.id } },
          body: {
            title: title.slice(0, 200),
            text,
            severity: "must",
            clause: requirement.clause,
            checks: requirement.checks,
            submission: Number(recheck?.submission.slice(1) ?? 0),
          },
        }),
      ),
    onSuccess: refresh,
  });
  return (
    <aside className="bench" aria-label={strings.requirement}>
      <p className="bench-place">
        {requirement.stage} · {requirement.clause}
      </p>
      <h2 className={`bench-title ${css["title"] ?? ""}`}>{requirement.words}</h2>
      <p className="bench-verdict gap">
        <Mark shape="gap" /> {requirement.why}
      </p>
      <div className="bench-part">
        <h3>{strings.checks}</h3>
      </div>
      {checks.length === 0 && <p className="quiet">{strings.noCheckStatesIt}</p>}
      {checks.map((c) => (
        <p key={c.id}>
          <Mark shape={shapeOf(c)} />{" "}
          <button
            type="button"
            className="linklike"
            onClick={() => {
              onCheck(c.id);
            }}
          >
            <SymbolText text={c.label} />
          </button>{" "}
          <span className="quiet">{verdictWords(c)}</span>
        </p>
      ))}
      <div className="bench-part">
        <h3>{strings.remark}</h3>
      </div>
      {filed.map((f) => (
        <p key={f.id} className="bench-filed">
          <Link to={`/reviews/${review.id}/findings?finding=${String(f.number)}`}>{strings.inFinding(f.number)}</Link>
          {": "}
          <SymbolText text={f.title} />
        </p>
      ))}
      {file.data && <p role="status">{strings.filed(file.data.number)}</p>}
      {filed.length === 0 && !file.data && (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            file.mutate();
          }}
        >
          <TextInput
            aria-label={strings.titleOfTheFinding}
            value={title}
            maxLength={200}
            required
            mb={6}
            onChange={(e) => {
              setTitle(e.currentTarget.value);
            }}
          />
          <Textarea
            aria-label={strings.textOfTheFinding}
            autosize
            minRows={4}
            value={text}
            required
            maxLength={5000}
            onChange={(e) => {
              setText(e.currentTarget.value);
            }}
          />
          <Problems error={file.error} title={strings.notFiled} />
          <div className="bench-file">
            <Button type="submit" color="dark" loading={file.isPending}>
              {strings.fileIt}
            </Button>
          </div>
        </form>
      )}
    </aside>
  );
}
