import { Button, Loader, SegmentedControl, Select } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { movedMarks } from "../../review/whatif/assumptions";
import { useKey } from "../../review/keys";
import { stagesOf } from "../../review/pages";
import { useReviewContext } from "../../review/ReviewContext";
import { answered, api, type Difference } from "../../shared/api/client";
import {
  differenceQuery,
  historiesQuery,
  useRecheck,
  useRefresh,
  useVocabulary,
  useWholeSheet,
} from "../../shared/api/queries";
import { Problems } from "../../shared/Problems";
import { SymbolText } from "../../shared/Symbol";
import { PlumbSheet } from "../../sheet/PlumbSheet";
import { firstGroup, GROUPS, valuesOf, type Group } from "./groups";
import { HistoryMarks } from "./HistoryMarks";
import { Moved } from "./Moved";
import { strings } from "./strings";
import css from "./RoundsPage.module.css";

const WORDS: Record<Group, string> = {
  settled: strings.settled,
  open: strings.open,
  undecided: strings.undecided,
  new: strings.fresh,
  changed: strings.changed,
  follows: strings.follows,
};

/** What became of an earlier submission's deviations and of the open findings in this one. */
export default function RoundsPage() {
  const { review, recheck, submission, recheckedAt } = useReviewContext();
  const [params, setParams] = useSearchParams();
  const withValues = review.submissions.filter((s) => s.claims > 0).sort((a, b) => a.number - b.number);
  const after = submission ?? withValues.at(-1)?.number;
  const earlier = withValues.filter((s) => after !== undefined && s.number < after);
  const chosen = earlier.find((s) => String(s.number) === params.get("from")) ?? earlier.at(-1);
  const difference = useQuery({
    ...differenceQuery(review.id, chosen?.number, after, recheckedAt),
    enabled: chosen !== undefined,
  });
  if (!chosen) {
    return (
      <main className="page">
        <p className="empty quiet">{strings.oneSubmission}</p>
      </main>
    );
  }
  if (difference.error) {
    return (
      <main className="page">
        <Problems error={difference.error} title={strings.theDifferenceCouldNot} />
      </main>
    );
  }
  // without its rows the sheet would look as if nothing had become of anything
  if (!difference.data || !recheck) return <Loader m="xl" size="sm" />;
  return (
    <Rounds
      key={`${String(chosen.number)} ${String(after)}`}
      difference={difference.data}
      before={chosen.number}
      choose={
        earlier.length > 1 && (
          <Select
            aria-label={strings.earlier}
            size="xs"
            w={84}
            allowDeselect={false}
            value={String(chosen.number)}
            data={earlier.map((s) => ({ value: String(s.number), label: s.label }))}
            onChange={(v) => {
              setParams(
                (p) => {
                  p.set("from", v ?? "");
                  return p;
                },
                { replace: true },
              );
            }}
          />
        )
      }
    />
  );
}

interface Props {
  difference: Difference;
  before: number;
  choose: React.ReactNode;
}

function Rounds({ difference, before, choose }: Props) {
  const { review, recheck, rows, selected, select, folded, fold, filter } = useReviewContext();
  const vocabulary = useVocabulary();
  const earlier = useWholeSheet(review.id, useRecheck(review.id, before).data);
  const [group, setGroup] = useState<Group>(() => firstGroup(difference));
  const values = useMemo(() => valuesOf(difference, group), [difference, group]);
  const ids = useMemo(() => new Set(values.map((v) => v.check)), [values]);
  const shown = useMemo(() => rows.filter((r) => r.all.some((c) => ids.has(c.id))), [rows, ids]);
  const ghosts = useMemo(() => (earlier && recheck ? movedMarks(earlier, recheck) : undefined), [earlier, recheck]);
  return (
    <div className="split">
      <div className="sheet-column">
        <PlumbSheet
          stages={stagesOf(vocabulary.data)}
          rows={shown}
          shown={shown}
          selected={selected?.id ?? null}
          folded={folded}
          filter={filter}
          onSelect={select}
          onFold={fold}
          tools={
            <>
              {choose}
              <b>{strings.fromTo(difference.before, difference.after)}</b>
              <SegmentedControl
                aria-label={strings.groups}
                value={group}
                onChange={(value) => {
                  setGroup(value);
                }}
                data={GROUPS.map((g) => ({
                  value: g,
                  label: strings.counted(WORDS[g], valuesOf(difference, g).length),
                }))}
              />
            </>
          }
          {...(ghosts ? { ghosts } : {})}
        />
      </div>
      <aside className="bench" aria-label={strings.findings(difference.after)}>
        <OpenFindings difference={difference} />
        <div className="bench-part">
          <h3>{strings.values(WORDS[group])}</h3>
        </div>
        {group === "follows" && <p className="quiet">{strings.mayFollow}</p>}
        <Moved values={values} onSelect={select} />
        <CameAndWent difference={difference} />
      </aside>
    </div>
  );
}

/** The open findings with what became of them; each is closed by the reviewer. */
function OpenFindings({ difference }: { difference: Difference }) {
  const { review, findings, select } = useReviewContext();
  const histories = useQuery(historiesQuery(review.id));
  const refresh = useRefresh(review.id);
  const [at, setAt] = useState(0);
  const listed = difference.findings;
  const chosen = listed[Math.min(at, listed.length - 1)];
  const resolved = listed.filter((f) => f.state === "settled");
  const close = useMutation({
    mutationFn: (numbers: number[]) =>
      answered(
        api.PATCH("/api/reviews/{review_id}/findings/", {
          params: { path: { review_id: review.id } },
          body: {
            resolved: true,
            findings: numbers.map((number) => ({
              number,
              revision: findings.find((f) => f.number === number)?.revision ?? 0,
            })),
          },
        }),
      ),
    onSettled: refresh,
  });
  const closeOne = () => {
    if (chosen?.state === "settled") close.mutate([chosen.number]);
  };
  const closeAll = () => {
    if (resolved.length > 0) close.mutate(resolved.map((f) => f.number));
  };
  const go = (to: number) => {
    const next = listed[to];
    if (!next) return;
    setAt(to);
    // a finding about what agrees has no check that decides
    const [check] = [...Object.keys(next.checks), ...(findings.find((f) => f.number === next.number)?.checks ?? [])];
    if (check) select(check);
  };
  useKey("closeFinding", closeOne);
  useKey("closeAll", closeAll);
  const several = listed.length > 0;
  useKey(
    "next",
    () => {
      go(at + 1);
    },
    several,
  );
  useKey(
    "previous",
    () => {
      go(at - 1);
    },
    several,
  );
  return (
    <>
      <h2 className="bench-title">{strings.findings(difference.after)}</h2>
      {listed.length === 0 ? (
        <p className="quiet">{strings.noFindingIsOpen}</p>
      ) : (
        <>
          <p className="quiet">{strings.onlyYouClose}</p>
          <table className={`plain ${css["findings"] ?? ""}`}>
            <thead>
              <tr>
                <th>{strings.finding}</th>
                <th>{strings.history}</th>
                <th>{strings.state}</th>
              </tr>
            </thead>
            <tbody>
              {listed.map((f, i) => {
                const marks = histories.data?.find((h) => h.number === f.number)?.marks;
                return (
                  <tr key={f.number} aria-current={f === chosen}>
                    <td>
                      <button
                        type="button"
                        className="linklike"
                        onClick={() => {
                          go(i);
                        }}
                      >
                        {f.number}. <SymbolText text={f.title} />
                      </button>
                    </td>
                    <td>{marks && <HistoryMarks marks={marks} />}</td>
                    <td className={f.state === "settled" ? "ours" : "off"}>{strings.states[f.state]}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
          <Problems error={close.error} title={strings.notClosed} />
          <div className="bench-file">
            <Button
              color="dark"
              disabled={chosen?.state !== "settled"}
              loading={close.isPending}
              onClick={closeOne}
              rightSection={<span aria-hidden>c</span>}
            >
              {strings.close}
            </Button>
            {resolved.length > 1 && (
              <Button variant="default" onClick={closeAll} rightSection={<span aria-hidden>C</span>}>
                {strings.closeAll(resolved.length)}
              </Button>
            )}
            {chosen && <Link to={`../findings?finding=${String(chosen.number)}`}>{strings.openInRegister}</Link>}
          </div>
          {chosen && chosen.state !== "settled" && <p className="quiet">{strings.notResolved}</p>}
        </>
      )}
    </>
  );
}

function CameAndWent({ difference }: { difference: Difference }) {
  const parts = [
    [strings.statedValues, difference.values],
    [strings.cases, difference.cases],
    [strings.stories, difference.stories],
    [strings.files, difference.files],
  ] as const;
  const listed = parts.filter(([, { came, went }]) => came.length + went.length > 0);
  if (listed.length === 0) return null;
  return (
    <>
      <div className="bench-part">
        <h3>{strings.cameAndWent}</h3>
      </div>
      {listed.map(([words, { came, went }]) => (
        <div key={words} className={css["came"]}>
          <b>{words}</b>
          {came.length > 0 && (
            <div>
              {strings.came}: {came.join(", ")}
            </div>
          )}
          {went.length > 0 && (
            <div className="quiet">
              {strings.went}: {went.join(", ")}
            </div>
          )}
        </div>
      ))}
    </>
  );
}
