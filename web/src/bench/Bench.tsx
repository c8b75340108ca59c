import { ActionIcon, Loader, SegmentedControl, Tooltip } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import { useReviewContext } from "../review/ReviewContext";
import type { Check, Review } from "../shared/api/client";
import { derivationQuery, type Side } from "../shared/api/queries";
import { Mark, shapeOf, verdictWords } from "../shared/Mark";
import { Facts } from "../shared/Facts";
import { factsOf } from "../shared/facts";
import { inOurUnit, oursText, percent, theirsText, unitLabel } from "../shared/numbers";
import { SymbolText } from "../shared/Symbol";
import { CausePart } from "../causes/CausePart";
import { Assume } from "../review/whatif/Assume";
import { CatalogueCode } from "./CatalogueCode";
import { Derivation } from "./Derivation";
import { OutOfPlumb } from "./OutOfPlumb";
import { Steps } from "./derivation";
import { Remark } from "./Remark";
import "./bench.css";
import { restsOn } from "../shared/findings";
import { strings } from "./strings";
import css from "./Bench.module.css";

const LEVELS = ["", strings.level1Consistent, strings.level2Recomputed, strings.level3Independent];

function place(check: Check): string {
  const source = check.theirs?.source;
  if (!source) return "";
  if (source.note) return source.note;
  const sheet = source.sheet && source.sheet !== source.file ? source.sheet : "";
  return [source.file, sheet, source.row ? strings.row(source.row) : "", source.column].filter(Boolean).join(" · ");
}

/** Where a submitted value is assessed: its exhibit, opened at its page or its table, with the cell framed. */
function placeLink(check: Check, submissions: Review["submissions"], number: number | undefined): string {
  const source = check.theirs?.source;
  const handedIn = submissions.find((s) => s.number === number) ?? submissions.find((s) => s.claims > 0);
  const exhibit = handedIn?.exhibits.find((e) => e.name === source?.file);
  if (!source || !exhibit || exhibit.pasted) return "";
  const at = new URLSearchParams({ exhibit: String(exhibit.id), sheet: source.sheet });
  if (source.row) at.set("row", String(source.row));
  if (source.column) at.set("column", source.column);
  return `../exhibits?${at.toString()}`;
}

function Row({ name, side, check, where }: { name: string; side: Check["carried"]; check: Check; where: string }) {
  return (
    <tr>
      <th scope="row">{name}</th>
      <td className="n ours" title={side ? String(side.value) : undefined}>
        {side ? oursText(side.value, check) : "–"}
      </td>
      <td className={"n" + (side && !side.agrees ? " off" : "")}>
        {side ? (side.deviation === null ? (side.agrees ? strings.same : strings.other) : percent(side.deviation)) : ""}
      </td>
      <td className="quiet">{where}</td>
    </tr>
  );
}

interface Props {
  /** What is assessed where nothing is selected */
  check?: Check;
  /** the stage whose deviations are listed where nothing is assessed */
  stage?: string;
}

/** What they said, what we get, why, and what to write about it: always the same parts in the same order. */
export function Bench({ check: first, stage }: Props) {
  const { review, submission, recheck, recheckedAt, selected, findings, select, stepDeviation, whatIf } =
    useReviewContext();
  const check = selected ?? first;
  const [side, setSide] = useState<Side>("independent");
  // what has no rule of a code behind it but the reference model has no derivation either
  const fromModel = check?.stage === "modes" || check?.kind === "mass";
  const derivation = useQuery({
    ...derivationQuery(review.id, submission, recheckedAt, side, check?.step ?? ""),
    enabled: check !== undefined && recheck !== undefined && !fromModel,
  });
  const steps = useMemo(() => new Steps(derivation.data ?? []), [derivation.data]);
  if (!check || !recheck) {
    return (
      <aside className="bench" aria-label={strings.bench}>
        {recheck && stage ? (
          <OutOfPlumb stage={stage} />
        ) : (
          <div className="empty">
            <h2 className="stage-title">{strings.chooseACheck}</h2>
            <p className="quiet">
              {strings.theDistanceOfAMark}
              <span className="key">n</span>
              {strings.selectsTheNextOne}
              <span className="key">?</span>
              {strings.listsAllKeys}
            </p>
          </div>
        )}
      </aside>
    );
  }
  const shownAt = placeLink(check, review.submissions, submission);
  const theirUnit = inOurUnit(check) ? "" : (check.theirs?.unit ?? "");
  const index = check.story === null ? check.point : recheck.stories.indexOf(check.story);
  const facts = factsOf(recheck.facts, check.id);
  const filed = findings.filter((f) => restsOn(f, check.id));
  const byId = new Map(recheck.checks.map((c) => [c.id, c]));
  // a sum that is checked against a limit has no value of ours beside it
  const summed = check.kind === "target";
  return (
    <aside className="bench" aria-label={strings.bench}>
      <div className="bench-step">
        <Tooltip label={strings.previousDeviationN}>
          <ActionIcon
            variant="default"
            size={26}
            aria-label={strings.previousDeviation}
            onClick={() => {
              stepDeviation(-1);
            }}
          >
            ‹
          </ActionIcon>
        </Tooltip>
        <Tooltip label={strings.nextDeviationN}>
          <ActionIcon
            variant="default"
            size={26}
            aria-label={strings.nextDeviation}
            onClick={() => {
              stepDeviation(1);
            }}
          >
            ›
          </ActionIcon>
        </Tooltip>
      </div>
      <p className="bench-place">
        <span className={css["spaced"]}>{check.stage}</span>
        {check.clause && ` · ${check.clause}`}
        {check.level && ` · ${LEVELS[check.level] ?? ""}`}
      </p>
      <h2 className="bench-title">
        {check.meaning}
        {check.meaning.toLowerCase() !== check.label.toLowerCase() && (
          <span className="bench-symbol">
            <SymbolText text={check.label} />
          </span>
        )}
      </h2>
      <p className={`bench-verdict ${shapeOf(check)}`}>
        <Mark shape={shapeOf(check)} /> {verdictWords(check)}
        {check.used_by > 0 && <span className="quiet">{strings.moreDependOnIt(check.used_by)}</span>}
      </p>
      {check.note && <p className="quiet bench-note">{check.note}</p>}
      {check.slip && <CatalogueCode key={check.slip} code={check.slip} verdict={check.verdict} />}
      {check.verdict !== "gap" && (check.theirs ?? check.carried ?? check.independent) && (
        <table className="bench-values">
          <thead>
            <tr>
              <td />
              <th scope="col" className="n">
                {check.unit ? unitLabel(check.unit) : strings.value}
              </th>
              <th scope="col" className="n">
                {strings.deviation}
              </th>
              <td />
            </tr>
          </thead>
          <tbody>
            <tr>
              <th scope="row">{strings.theirs}</th>
              <td className="n theirs" title={check.theirs ? String(check.theirs.value) : undefined}>
                {theirsText(check)}
              </td>
              <td />
              <td className="quiet">
                {theirUnit ? `${check.theirs?.text ?? ""} ${theirUnit} · ` : ""}
                {shownAt ? (
                  <Link to={shownAt} title={strings.openItInTheExhibit}>
                    {place(check)}
                  </Link>
                ) : (
                  place(check)
                )}
              </td>
            </tr>
            {check.carried && (
              <Row
                name={check.level === 1 ? strings.theirsStated : strings.oursCarried}
                side={check.carried}
                check={check}
                where={
                  check.level === 1
                    ? fromModel
                      ? strings.anotherSubmittedValue
                      : strings.submittedTotal
                    : strings.ourRuleOnTheirUpstream
                }
              />
            )}
            {check.independent && !summed && (
              <Row
                name={strings.oursIndependent}
                side={check.independent}
                check={check}
                where={
                  check.level === 2
                    ? strings.usesInputsFromTheSubmission
                    : fromModel
                      ? strings.referenceModel
                      : check.carried
                        ? strings.ourInputsThroughout
                        : strings.ourInput
                }
              />
            )}
            {check.limit && (
              <tr>
                <th scope="row">{check.limit.side === "max" ? strings.atMostHead : strings.atLeastHead}</th>
                <td className={"n" + (check.verdict === "breaches" ? " limit" : "")}>
                  {oursText(check.limit.value, check)}
                </td>
                <td />
                <td className="quiet">
                  <SymbolText text={check.limit.symbol} /> · {check.limit.clause}
                </td>
              </tr>
            )}
          </tbody>
        </table>
      )}
      <Assume check={check} />
      {check.rests_on.length > 0 && (
        <p className="bench-from">
          {check.role === "inherited" ? strings.inheritedFrom : strings.affectedUpstreamBy}
          {check.rests_on.map((id, i) => (
            <span key={id}>
              {i > 0 && ", "}
              <button
                type="button"
                className="linklike"
                onClick={() => {
                  select(id);
                }}
              >
                <SymbolText text={byId.get(id)?.label ?? id} />
              </button>
            </span>
          ))}
        </p>
      )}
      <CausePart check={check} />
      {facts.length > 0 && (
        <>
          <div className="bench-part">
            <h3>{strings.restsOnHead}</h3>
          </div>
          <Facts key={check.id} facts={facts} index={index} most={4} />
        </>
      )}
      <div className="bench-part">
        <h3>{strings.why}</h3>
        {check.carried && check.level !== 1 && (
          <SegmentedControl
            size="xs"
            aria-label={strings.whichDerivation}
            value={side}
            onChange={(v) => {
              setSide(v);
            }}
            data={[
              { value: "independent", label: strings.withOurInputs },
              { value: "carried", label: strings.withTheirs },
            ]}
          />
        )}
      </div>
      {whatIf && <p className="quiet bench-from">{strings.derivationAsItIs}</p>}
      {fromModel ? (
        <p className="quiet bench-from">
          {check.kind === "mass" ? (
            <>
              {strings.oursIsOurSeismicWeight}
              <Link to="../weight">{strings.weight}</Link>.
            </>
          ) : summed ? (
            strings.theSumOfTheSubmitted
          ) : check.level === 1 ? (
            strings.theSubmittedValuesComparedWith
          ) : (
            <>
              {strings.oursIsAResultOf}
              <Link to="../modes">{strings.modes}</Link>
              {strings.showsItsModeShapes}
              <Link to="../frame">{strings.frame}</Link>
              {strings.itsMembersAndMasses}
            </>
          )}
        </p>
      ) : derivation.isPending ? (
        <Loader size="xs" aria-label={strings.loadingTheDerivation} />
      ) : (
        <Derivation
          key={`${check.id}-${side}`}
          id={check.step}
          steps={steps}
          index={index}
          checks={recheck.checks}
          onSelect={select}
        />
      )}
      {/* what is only assumed is no finding */}
      {!whatIf && <Remark key={check.id} check={check} filed={filed} />}
    </aside>
  );
}
