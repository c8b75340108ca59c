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
import { Derivation } from "./Derivation";
import { OutOfPlumb } from "./OutOfPlumb";
import { Steps } from "./derivation";
import { Remark } from "./Remark";
import "./bench.css";

const LEVELS = ["", "level 1 consistent", "level 2 recomputed", "level 3 independent"];

function place(check: Check): string {
  const source = check.theirs?.source;
  if (!source) return "";
  if (source.note) return source.note;
  const sheet = source.sheet && source.sheet !== source.file ? source.sheet : "";
  return [source.file, sheet, source.row ? `row ${String(source.row)}` : "", source.column].filter(Boolean).join(" · ");
}

/** Where a submitted value is looked at: its exhibit, opened at its page or its table, with the cell framed. */
function placeLink(check: Check, submissions: Review["submissions"], number: number | undefined): string {
  const source = check.theirs?.source;
  const handedIn = submissions.find((s) => s.number === number) ?? submissions.find((s) => s.claims > 0);
  const exhibit = handedIn?.exhibits.find((e) => e.name === source?.file);
  if (!source || !exhibit || exhibit.pasted) return "";
  const at = new URLSearchParams({ exhibit: String(exhibit.id), sheet: source.sheet ?? "" });
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
        {side ? (side.deviation === null ? (side.agrees ? "same" : "other") : percent(side.deviation)) : ""}
      </td>
      <td className="quiet">{where}</td>
    </tr>
  );
}

interface Props {
  /** what is looked at where nothing is selected */
  check?: Check;
  /** the stage whose deviations are listed where nothing is looked at */
  stage?: string;
}

/** What they said, what we get, why, and what to write about it: always the same parts in the same order. */
export function Bench({ check: first, stage }: Props) {
  const { review, submission, recheck, recheckedAt, selected, findings, select, stepDeviation } = useReviewContext();
  const check = selected ?? first;
  const [side, setSide] = useState<Side>("independent");
  // what has no rule of a code behind it but our own model has no derivation either
  const fromModel = check?.stage === "modes" || check?.kind === "mass";
  const derivation = useQuery({
    ...derivationQuery(review.id, submission, recheckedAt, side, check?.step ?? ""),
    enabled: check !== undefined && recheck !== undefined && !fromModel,
  });
  const steps = useMemo(() => new Steps(derivation.data ?? []), [derivation.data]);
  if (!check || !recheck) {
    return (
      <aside className="bench" aria-label="Bench">
        {recheck && stage ? (
          <OutOfPlumb stage={stage} />
        ) : (
          <div className="empty">
            <h2 className="stage-title">Choose a check</h2>
            <p className="quiet">
              Each mark hangs as far from the line as the submitted value is off, in multiples of the tolerance. Select
              one to see theirs, ours and every step of why. <span className="key">n</span> goes to the next one,{" "}
              <span className="key">?</span> lists the keys.
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
  const filed = findings.filter((f) => f.checks.includes(check.id) && f.status !== "withdrawn");
  const byId = new Map(recheck.checks.map((c) => [c.id, c]));
  // a sum that is held to a limit has no value of ours beside it
  const summed = check.kind === "target";
  return (
    <aside className="bench" aria-label="Bench">
      <div className="bench-step">
        <Tooltip label="previous deviation, N">
          <ActionIcon
            variant="default"
            size={26}
            aria-label="Previous deviation"
            onClick={() => {
              stepDeviation(-1);
            }}
          >
            ‹
          </ActionIcon>
        </Tooltip>
        <Tooltip label="next deviation, n">
          <ActionIcon
            variant="default"
            size={26}
            aria-label="Next deviation"
            onClick={() => {
              stepDeviation(1);
            }}
          >
            ›
          </ActionIcon>
        </Tooltip>
      </div>
      <p className="bench-place">
        <span style={{ textTransform: "capitalize" }}>{check.stage}</span>
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
        {check.used_by > 0 && <span className="quiet"> · {check.used_by} more follow from it</span>}
      </p>
      {check.note && <p className="quiet bench-note">{check.note}</p>}
      {check.verdict !== "gap" && (
        <table className="bench-values">
          <thead>
            <tr>
              <td />
              <th scope="col" className="n">
                {check.unit ? unitLabel(check.unit) : "value"}
              </th>
              <th scope="col" className="n">
                theirs off by
              </th>
              <td />
            </tr>
          </thead>
          <tbody>
            <tr>
              <th scope="row">Theirs</th>
              <td className="n theirs" title={check.theirs ? String(check.theirs.value) : undefined}>
                {theirsText(check)}
              </td>
              <td />
              <td className="quiet">
                {theirUnit ? `${check.theirs?.text ?? ""} ${theirUnit} · ` : ""}
                {shownAt ? (
                  <Link to={shownAt} title="open it where it stands">
                    {place(check)}
                  </Link>
                ) : (
                  place(check)
                )}
              </td>
            </tr>
            {check.carried && (
              <Row
                name={check.level === 1 ? "Theirs, stated" : "Ours, carried"}
                side={check.carried}
                check={check}
                where={
                  check.level === 1
                    ? fromModel
                      ? "their own other value"
                      : "their own total"
                    : "our rule on their upstream values"
                }
              />
            )}
            {check.independent && !summed && (
              <Row
                name="Ours, independent"
                side={check.independent}
                check={check}
                where={
                  check.level === 2
                    ? "rests on inputs taken over from them"
                    : fromModel
                      ? "our own model"
                      : check.carried
                        ? "our inputs all the way down"
                        : "our own input"
                }
              />
            )}
            {check.limit && (
              <tr>
                <th scope="row">{check.limit.side === "max" ? "At most" : "At least"}</th>
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
      {check.rests_on.length > 0 && (
        <p className="bench-from">
          {check.role === "inherited" ? "Inherited from " : "Theirs would lead elsewhere because of "}
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
      {facts.length > 0 && (
        <>
          <div className="bench-part">
            <h3>Rests on</h3>
          </div>
          <Facts key={check.id} facts={facts} index={index} most={4} />
        </>
      )}
      <div className="bench-part">
        <h3>Why</h3>
        {check.carried && check.level !== 1 && (
          <SegmentedControl
            size="xs"
            aria-label="Which derivation"
            value={side}
            onChange={(v) => {
              setSide(v as Side);
            }}
            data={[
              { value: "independent", label: "with our inputs" },
              { value: "carried", label: "with theirs" },
            ]}
          />
        )}
      </div>
      {fromModel ? (
        <p className="quiet bench-from">
          {check.kind === "mass" ? (
            <>
              Ours is our seismic weight over g; both stand story by story under <Link to="../weight">Weight</Link>.
            </>
          ) : summed ? (
            "The sum of their own shares against what the code asks for."
          ) : check.level === 1 ? (
            "Their own values against each other; no model is needed."
          ) : (
            <>
              Ours is read off our own model: <Link to="../modes">Modes</Link> shows it moving,{" "}
              <Link to="../frame">Frame</Link> what it is made of.
            </>
          )}
        </p>
      ) : derivation.isPending ? (
        <Loader size="xs" aria-label="The derivation is fetched" />
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
      <Remark key={check.id} check={check} filed={filed} />
    </aside>
  );
}
