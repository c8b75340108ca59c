import { Checkbox, Select, SegmentedControl, TextInput } from "@mantine/core";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { useKey } from "../../review/keys";
import { useReviewContext } from "../../review/ReviewContext";
import { useSession } from "../../shared/api/queries";
import type { Finding } from "../../shared/api/client";
import { day } from "../../shared/dates";
import { SymbolText } from "../../shared/Symbol";
import { Bulk } from "./Bulk";
import { Detail } from "./Detail";
import "./findings.css";
import { Matrix } from "./Matrix";
import { EVERYTHING, isDue, isOpen, OPEN, ordered, passes, stageOf, type Order, type RegisterFilter } from "./register";
import { strings } from "./strings";
import { SEVERITY } from "./words";

const today = () => new Date().toISOString().slice(0, 10);

/** The register: every finding with its thread, followed until it is closed. */
export default function FindingsPage() {
  const { review, findings } = useReviewContext();
  const me = useSession().data?.person?.id;
  const [params, setParams] = useSearchParams();
  const [filter, setFilter] = useState<RegisterFilter>(EVERYTHING);
  const [order, setOrder] = useState<Order>("number");
  const [ticked, setTicked] = useState<number[]>([]);
  const now = today();
  const shown = ordered(
    findings.filter((f) => passes(f, filter, me, now)),
    order,
  );
  const chosen = findings.find((f) => String(f.number) === params.get("finding")) ?? shown[0];
  const onTeam = review.role === "lead" || review.role === "reviewer";
  const marked = shown.filter((f) => ticked.includes(f.number));
  const waiting = findings.filter((f) => f.status === "issued" || f.status === "answered").length;
  const open = (number: number) => {
    setParams(
      (p) => {
        p.set("finding", String(number));
        return p;
      },
      { replace: true },
    );
  };
  const step = (by: 1 | -1) => () => {
    const next = shown[shown.findIndex((f) => f.id === chosen?.id) + by];
    if (next) open(next.number);
  };
  useKey("next", step(1), shown.length > 0);
  useKey("previous", step(-1), shown.length > 0);
  return (
    <div className="split">
      <main className="stage">
        <div className="stage-head">
          <h2 className="stage-title">{strings.findings}</h2>
          <SegmentedControl
            aria-label={strings.whichFindings}
            value={filter.which}
            onChange={(which) => {
              setFilter({ ...filter, which });
            }}
            data={whichOf(findings, me, now, onTeam)}
          />
          {(waiting > 0 || review.role === "submitter") && (
            <span className="end">
              <Matrix onTeam={onTeam} waiting={waiting} />
            </span>
          )}
        </div>
        {findings.length > 1 && <Filters findings={findings} filter={filter} onFilter={setFilter} />}
        {onTeam && marked.length > 0 && (
          <Bulk
            findings={marked}
            onDone={() => {
              setTicked([]);
            }}
          />
        )}
        {shown.length === 0 ? (
          <p className="empty quiet">
            {onTeam ? (
              <>
                {strings.noFindings}
                {filter === EVERYTHING || findings.length === 0 ? strings.yet : strings.passTheFilter}
                {strings.selectADeviationOnThe}
                <Link to="../sheet">{strings.sheet}</Link>
                {strings.editTheDraftedRemarkAnd}
              </>
            ) : (
              strings.noFindingHasBeenIssued
            )}
          </p>
        ) : (
          <table className="plain register">
            <thead>
              <tr>
                {onTeam && (
                  <th>
                    <Checkbox
                      size="xs"
                      aria-label={strings.tickAll}
                      checked={marked.length === shown.length}
                      indeterminate={marked.length > 0 && marked.length < shown.length}
                      onChange={() => {
                        setTicked(marked.length === shown.length ? [] : shown.map((f) => f.number));
                      }}
                    />
                  </th>
                )}
                <Heading order="number" now={order} onOrder={setOrder} text={strings.no} />
                <th>{strings.finding}</th>
                <Heading order="severity" now={order} onOrder={setOrder} text={strings.severity} />
                <Heading order="state" now={order} onOrder={setOrder} text={strings.state} />
                <Heading order="due" now={order} onOrder={setOrder} text={strings.nextBy} />
                <th className="n">{strings.thread}</th>
              </tr>
            </thead>
            <tbody>
              {shown.map((f) => (
                <tr key={f.id} aria-current={f.id === chosen?.id}>
                  {onTeam && (
                    <td>
                      <Checkbox
                        size="xs"
                        aria-label={strings.tick(f.number)}
                        checked={ticked.includes(f.number)}
                        onChange={() => {
                          setTicked((t) => (t.includes(f.number) ? t.filter((n) => n !== f.number) : [...t, f.number]));
                        }}
                      />
                    </td>
                  )}
                  <td className="n">{f.number}</td>
                  <td>
                    <button
                      type="button"
                      onClick={() => {
                        open(f.number);
                      }}
                    >
                      <SymbolText text={f.title} />
                    </button>
                    <div className="quiet">{f.clause}</div>
                  </td>
                  <td className="severity">{SEVERITY[f.severity ?? "must"]}</td>
                  <td className={f.status === "settled" ? "ours" : isOpen(f) ? "off" : "quiet"}>{f.status}</td>
                  <td>
                    {f.assignee?.name}
                    {f.due && <div className={isDue(f, now) ? "limit" : "quiet"}>{day(f.due)}</div>}
                  </td>
                  <td className="n quiet">{f.thread.length || ""}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </main>
      {chosen ? (
        <Detail
          key={`${String(chosen.id)}-${chosen.status}`}
          finding={chosen}
          reviewId={review.id}
          role={review.role}
        />
      ) : (
        <aside className="bench" />
      )}
    </div>
  );
}

/** The heading of a column by which the register can be ordered. */
function Heading(props: { order: Order; now: Order; onOrder: (order: Order) => void; text: string }) {
  return (
    <th aria-sort={props.order === props.now ? "ascending" : "none"} className={props.order === "number" ? "n" : ""}>
      <button
        type="button"
        className="order"
        onClick={() => {
          props.onOrder(props.order);
        }}
      >
        {props.text}
        {props.order === props.now && " ↓"}
      </button>
    </th>
  );
}

/** Which findings can be chosen, those that there are. */
function whichOf(findings: Finding[], me: number | undefined, now: string, onTeam: boolean) {
  const count = (which: RegisterFilter["which"]) =>
    findings.filter((f) => passes(f, { ...EVERYTHING, which }, me, now)).length;
  const further = [
    { value: "mine" as const, label: strings.mine(count("mine")) },
    { value: "answered" as const, label: strings.answered(count("answered")) },
    { value: "due" as const, label: strings.overdue(count("due")) },
  ].filter(({ value }) => onTeam && count(value) > 0);
  return [
    { value: "all" as const, label: strings.all(findings.length) },
    { value: "open" as const, label: strings.open(findings.filter((f) => OPEN.includes(f.status)).length) },
    ...further,
  ];
}

interface FilterProps {
  findings: Finding[];
  filter: RegisterFilter;
  onFilter: (filter: RegisterFilter) => void;
}

/** The further filters of the register: those that tell findings apart. */
function Filters({ findings, filter, onFilter }: FilterProps) {
  const choices = [
    {
      name: "severity" as const,
      label: strings.severityLabel,
      any: strings.anySeverity,
      data: [...new Set(findings.map((f) => f.severity ?? "must"))].map((s) => ({
        value: s,
        label: SEVERITY[s],
      })),
    },
    {
      name: "stage" as const,
      label: strings.stageLabel,
      any: strings.anyStage,
      data: [...new Set(findings.map(stageOf))].filter(Boolean).map((s) => ({ value: s, label: s })),
    },
    {
      name: "submission" as const,
      label: strings.submissionLabel,
      any: strings.anySubmission,
      data: [...new Set(findings.map((f) => f.submission ?? ""))].filter(Boolean).map((s) => ({ value: s, label: s })),
    },
  ];
  return (
    <div className="bench-file">
      <TextInput
        size="xs"
        w={160}
        aria-label={strings.search}
        placeholder={strings.search}
        value={filter.words}
        onChange={(e) => {
          onFilter({ ...filter, words: e.currentTarget.value });
        }}
      />
      {choices.map(
        ({ name, label, any, data }) =>
          data.length > 1 && (
            <Select
              key={name}
              aria-label={label}
              placeholder={any}
              size="xs"
              w={150}
              clearable
              value={filter[name] || null}
              data={data}
              onChange={(v) => {
                onFilter({ ...filter, [name]: v ?? "" });
              }}
            />
          ),
      )}
    </div>
  );
}
