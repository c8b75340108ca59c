import { Link } from "react-router";
import { Bench } from "../../bench/Bench";
import { AppliedCause } from "../../causes/AppliedCause";
import { CauseHead } from "../../causes/CauseHead";
import { marksBefore, named } from "../../causes/causes";
import { useReviewContext } from "../../review/ReviewContext";
import { stagesOf } from "../../review/pages";
import { useVocabulary } from "../../shared/api/queries";
import { deviates } from "../../sheet/layout";
import { PlumbSheet } from "../../sheet/PlumbSheet";
import { strings } from "../../sheet/strings";
import { missingByStage } from "../requirements/requirements";
import { movedMarks } from "../../review/whatif/assumptions";
import { FileQuestions } from "./FileQuestions";

const NONE: ReadonlyMap<string, number> = new Map();

/** A review's home: the plumb sheet with the bench beside it. */
export function SheetPage() {
  const { review, recheck, selected, select, rows, shown, filter, setFilter, folded, fold } = useReviewContext();
  const { stored, whatIf, causes, appliedCause } = useReviewContext();
  const vocabulary = useVocabulary();
  if (!recheck) return null;
  if (!review.submissions.some((s) => s.claims > 0)) {
    return (
      <div className="page">
        <div className="empty">
          <h2 className="stage-title">{strings.nothingHasBeenSubmittedYet}</h2>
          <p>
            {strings.firstDescribeTheBuildingIn}
            <Link to="../brief">{strings.brief}</Link>
            {strings.thenPasteOrUploadThe}
            <Link to="../exhibits">{strings.exhibits}</Link>
            {strings.theValuesOfEachAccepted}
          </p>
        </div>
      </div>
    );
  }
  // the first thing to look at, until the reviewer chooses
  const first = rows.find((r) => r.check.role === "origin") ?? rows.find((r) => r.all.some(deviates));
  const applied = named(causes, appliedCause);
  const ghosts = applied ? marksBefore(applied, recheck.checks) : whatIf && stored ? movedMarks(stored, recheck) : NONE;
  return (
    <div className="split">
      <div className="sheet-column">
        {applied ? <AppliedCause cause={applied} /> : !whatIf && <CauseHead />}
        <PlumbSheet
          stages={stagesOf(vocabulary.data)}
          rows={rows}
          shown={shown}
          selected={(selected ?? first?.check)?.id ?? null}
          folded={folded}
          filter={filter}
          onSelect={select}
          onFold={fold}
          onFilter={setFilter}
          missing={missingByStage(recheck.requirements)}
          tools={filter.which === "questions" && <FileQuestions rows={shown} />}
          ghosts={ghosts}
          onLine={applied !== undefined}
        />
      </div>
      <Bench check={selected ?? first?.check} />
    </div>
  );
}
