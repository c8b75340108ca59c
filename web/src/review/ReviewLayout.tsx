import { Loader, Modal, Select } from "@mantine/core";
import { useDisclosure, useHotkeys } from "@mantine/hooks";
import { useQuery } from "@tanstack/react-query";
import { Suspense, useEffect, useMemo, useState } from "react";
import { Link, NavLink, Outlet, useLocation, useNavigate, useParams, useSearchParams } from "react-router";
import { api, type Recheck, type Submission } from "../shared/api/client";
import {
  causesQuery,
  isSearch,
  useCauseSearch,
  useEditions,
  useFindings,
  useRecheck,
  useReview,
  useWholeSheet,
  whatIfQuery,
} from "../shared/api/queries";
import { Appearance } from "../shared/Appearance";
import { BeforeProvider } from "../shared/before";
import { Mark } from "../shared/Mark";
import { counted } from "../shared/numbers";
import { Problems } from "../shared/Problems";
import { bareStages, deviates, passes, rowsOf, type SheetFilter, firstFilter } from "../sheet/layout";
import { KeyHandlers, KeyProvider, KEYS } from "./keys";
import { PAGES } from "./pages";
import { NextStepLine } from "./NextStepLine";
import { Palette } from "./Palette";
import { ReviewProvider, type ReviewContext } from "./ReviewContext";
import "./review.css";
import { adopted, NOTHING_ASSUMED, readAssumptions, writeAssumptions } from "./whatif/assumptions";
import { WhatIfDialog } from "./whatif/WhatIfDialog";
import { WhatIfStrip } from "./whatif/WhatIfStrip";
import { strings } from "./strings";

export function ReviewLayout() {
  const { id = "" } = useParams();
  const go = useNavigate();
  const location = useLocation();
  const review = useReview(id);
  const onTeam = review.data?.role === "lead" || review.data?.role === "reviewer";
  const [params, setParams] = useSearchParams();
  const number = /^\d+$/.test(params.get("s") ?? "") ? Number(params.get("s")) : undefined;
  const recheck = useRecheck(id, number, onTeam);
  const findings = useFindings(id);
  const editions = useEditions();
  const [wanted, setFilter] = useState<SheetFilter | null>(null);
  const [folded, setFolded] = useState<string[]>([]);
  const [handlers] = useState(() => new KeyHandlers());
  const [helping, help] = useDisclosure(false);
  const [assumes, assuming] = useDisclosure(false);
  const chosen = params.get("check");

  const written = params.get("if");
  const whatIf = useMemo(() => readAssumptions(written), [written]);
  const otherwise = useQuery({
    ...whatIfQuery(id, number, recheck.dataUpdatedAt, whatIf ?? NOTHING_ASSUMED),
    enabled: onTeam && recheck.data !== undefined && whatIf !== undefined,
  });
  const under = whatIf && otherwise.data;
  const stored = useWholeSheet(id, recheck.data);
  const current = under ? under.sheet : stored;
  const causes = useQuery({
    ...causesQuery(id, number, recheck.dataUpdatedAt),
    enabled: onTeam && (recheck.data?.origins.length ?? 0) > 0,
  });
  const changeSearch = useCauseSearch(id, number, recheck.dataUpdatedAt).mutate;
  const setParam = (name: string, value: string | null) => {
    setParams(
      (p) => {
        if (value === null) p.delete(name);
        else p.set(name, value);
        return p;
      },
      { replace: true },
    );
  };
  const rows = useMemo(() => (current ? rowsOf(current) : []), [current]);
  const before = useMemo(() => new Map(under && stored ? stored.checks.map((c) => [c.id, c]) : []), [under, stored]);
  const moved = useMemo(() => new Set(under?.flips.map((f) => f.check) ?? []), [under]);
  // until the reviewer says otherwise what is out of plumb, so that all of it is seen at once; the whole line where
  // nothing is
  const filter = useMemo<SheetFilter>(() => wanted ?? firstFilter(rows), [wanted, rows]);
  const shown = useMemo(
    () => rows.filter((r) => passes(r, filter) || r.all.some((c) => moved.has(c.id))),
    [rows, filter, moved],
  );
  const select = (check: string) => {
    setParams(
      (p) => {
        p.set("check", check);
        return p;
      },
      { replace: true },
    );
  };
  /** select the next (or the previous) line of its kind after the one that is selected */
  const step = (by: 1 | -1, only: (row: (typeof rows)[number]) => boolean) => () => {
    const visible = shown.filter((r) => !folded.includes(r.stage));
    const at = visible.findIndex((r) => r.all.some((c) => c.id === chosen));
    const ahead = by > 0 ? visible.slice(at + 1) : visible.slice(0, at < 0 ? undefined : at).reverse();
    const next = ahead.find(only);
    if (next) select(next.check.id);
  };
  const page = PAGES.find((p) => location.pathname.endsWith(`/${p}`)) ?? "sheet";
  const sharedParams = new URLSearchParams([
    ...(chosen ? [["check", chosen]] : []),
    ...(number === undefined ? [] : [["s", String(number)]]),
    ...(whatIf && written ? [["if", written]] : []),
  ]).toString();
  const to = (name: string) => `/reviews/${id}/${name}${sharedParams && `?${sharedParams}`}`;
  const open = (name: string) => void go(to(name));
  const turn = (by: number) => () => {
    const next = PAGES[PAGES.indexOf(page) + by];
    if (next) open(next);
  };
  const act: Record<string, () => void> = {
    next: () => {
      if (!handlers.run("next")) step(1, () => true)();
    },
    previous: () => {
      if (!handlers.run("previous")) step(-1, () => true)();
    },
    closeFinding: () => {
      handlers.run("closeFinding");
    },
    closeAll: () => {
      handlers.run("closeAll");
    },
    nextDeviation: step(1, (r) => r.all.some(deviates)),
    previousDeviation: step(-1, (r) => r.all.some(deviates)),
    derivation: () => {
      handlers.run("derivation");
    },
    remark: () => {
      handlers.run("remark");
    },
    nextStage: turn(1),
    previousStage: turn(-1),
    sheet: () => {
      open("sheet");
    },
    whatIf: () => {
      assuming.open();
    },
    help: help.toggle,
    out: () => {
      setFilter({ ...filter, which: filter.which === "out" ? "all" : "out" });
    },
    questions: () => {
      setFilter({ ...filter, which: filter.which === "questions" ? "all" : "questions" });
    },
  };
  useHotkeys(KEYS.map((k) => [k.hotkey, () => act[k.act]?.(), { preventDefault: true }]));

  // what others did since then is on the desk
  const loaded = review.isSuccess;
  useEffect(() => {
    if (loaded) void api.POST("/api/reviews/{review_id}/visit/", { params: { path: { review_id: id } }, body: {} });
  }, [id, loaded]);

  if (review.isPending) return <Loader m="xl" size="sm" />;
  if (review.error) {
    return (
      <main className="page">
        <Problems error={review.error} title={strings.thisReviewCantBeOpened} />
        <Link to="/">{strings.toYourReviews}</Link>
      </main>
    );
  }
  const { submissions } = review.data;
  const submission =
    submissions.find((s) => s.number === number) ?? submissions.find((s) => s.claims > 0) ?? submissions[0];
  const counts = current?.counts;
  const apart = current?.apart;
  const origins = current?.origins.length ?? 0;
  const inherited = apart?.inherited ?? current?.checks.filter((c) => c.role === "inherited").length ?? 0;
  const coverage = current?.coverage;
  const bare = current && coverage && coverage.claims > 0 ? bareStages(current) : [];
  const context: ReviewContext = {
    review: review.data,
    recheck: current,
    stored,
    assumedBrief: under ? adopted(review.data.brief, whatIf.patch) : review.data.brief,
    whatIf,
    flips: under?.flips ?? [],
    assume: (assumptions) => {
      setParam("if", assumptions && writeAssumptions(assumptions));
    },
    causes: isSearch(causes.data) ? undefined : causes.data,
    causesPending: causes.isLoading,
    causeSearch: isSearch(causes.data) ? { ...causes.data, change: changeSearch } : undefined,
    appliedCause: params.get("cause"),
    applyCause: (name) => {
      setParam("cause", name);
    },
    recheckedAt: recheck.dataUpdatedAt,
    submission: number,
    findings: findings.data ?? [],
    selected: current?.checks.find((c) => c.id === chosen),
    select,
    stepDeviation: (by) => {
      step(by, (r) => r.all.some(deviates))();
    },
    rows,
    shown,
    filter,
    setFilter,
    folded,
    fold: (stage) => {
      setFolded((f) => (f.includes(stage) ? f.filter((s) => s !== stage) : [...f, stage]));
    },
  };
  const several = submissions.filter((s) => s.claims > 0).length > 1;
  const pages = onTeam
    ? PAGES.filter((p) => p !== "rounds" || several)
    : review.data.role === "submitter"
      ? (["exhibits", "findings"] as const)
      : (["findings", "report"] as const);
  return (
    <ReviewProvider value={context}>
      <KeyProvider value={handlers}>
        <BeforeProvider value={before}>
          <div className="review">
            <header className="review-head">
              <Link to="/" className="review-home" aria-label={strings.allReviews} title={strings.allReviews}>
                <svg width="18" height="22" viewBox="0 0 18 22" aria-hidden>
                  <path d="M9 0v13" stroke="var(--ink)" strokeWidth="1.8" />
                  <path d="M4 12h10l-5 10z" fill="var(--ours)" />
                </svg>
              </Link>
              <h1>{review.data.title}</h1>
              {submissions.length > 1 && onTeam && (
                <Select
                  aria-label={strings.submission}
                  w={84}
                  size="xs"
                  allowDeselect={false}
                  value={String(submission?.number ?? "")}
                  data={submissions.map((s) => ({ value: String(s.number), label: s.label }))}
                  onChange={(v) => {
                    setParams(
                      (p) => {
                        p.set("s", v ?? "");
                        p.delete("check");
                        return p;
                      },
                      { replace: true },
                    );
                  }}
                />
              )}
              {submission && (
                <span className="chip">
                  {strings.exhibitsOf(
                    submissions.length > 1 && onTeam ? "" : submission.label,
                    counted(submission.exhibits.length, "exhibit"),
                  )}
                  {unread(submission) > 0 ? strings.notReadYet(unread(submission)) : ""}
                  {submission.status === "draft" ? strings.draft : ""}
                </span>
              )}
              {onTeam && (
                <span className="chip">
                  {editions.data?.find((e) => e.id === review.data.brief.edition)?.short ?? review.data.brief.edition}
                  {strings.ofRecord}
                </span>
              )}
              {coverage?.claims === 0 && <span className="quiet review-counts">{strings.nothingSubmittedYet}</span>}
              {counts && coverage && coverage.claims > 0 && (
                <div className="review-counts" role="status">
                  <span className="quiet" title={coverageWords(coverage)}>
                    {strings.ofRechecked(coverage.rechecked, coverage.claims)}
                    <span className="where-there-is-room">{strings.independently(coverage.independent)}</span>
                  </span>
                  {coverage.requirements > 0 && (
                    <NavLink className="quiet" to={to("requirements")}>
                      {strings.requirementsShown(coverage.shown, coverage.requirements)}
                    </NavLink>
                  )}
                  {bare.length > 0 && (
                    <span className="quiet" title={strings.nothingWasSubmittedFor(bare.join(", "))}>
                      {strings.withoutSubmittedValues(counted(bare.length, "stage"))}
                    </span>
                  )}
                  {apart && (
                    <span className="quiet" title={strings.theOthersFollow}>
                      {strings.checksAreHere(current.checks.length, apart.checks)}
                    </span>
                  )}
                  <span className={origins ? "off" : "quiet"}>
                    <Mark shape={origins ? "origin" : "dot"} />
                    {strings.origin(origins)}
                  </span>
                  <span
                    className="quiet"
                    title={strings.inherited(inherited)}
                    aria-label={strings.inherited(inherited)}
                  >
                    <Mark shape="inherited" /> {inherited}
                  </span>
                  <span className={counts.breaches ? "limit" : "quiet"}>
                    <Mark shape="breach" />
                    {strings.beyondALimit(counts.breaches)}
                  </span>
                  <span
                    className="quiet"
                    title={`${strings.gaps(counts.gap)}: ${strings.valuesThatAreNotStated}`}
                    aria-label={strings.gaps(counts.gap)}
                  >
                    <Mark shape="gap" /> {counts.gap}
                  </span>
                  <span
                    className="quiet"
                    title={strings.questions(counts.question)}
                    aria-label={strings.questions(counts.question)}
                  >
                    <Mark shape="question" /> {counts.question}
                  </span>
                </div>
              )}
            </header>
            <nav className="review-nav" aria-label={strings.stages}>
              {pages.map((p) => (
                <NavLink
                  key={p}
                  to={to(p)}
                  className={({ isActive }) =>
                    [isActive && "active", bare.includes(p) && "bare"].filter(Boolean).join(" ")
                  }
                  title={bare.includes(p) ? strings.nothingWasSubmittedForYet(p) : undefined}
                >
                  {p}
                </NavLink>
              ))}
              <span className="review-nav-end">
                {onTeam && (
                  <button type="button" className="linklike" onClick={help.open}>
                    {strings.keys}
                    <span className="key">?</span>
                  </button>
                )}
                <Appearance />
              </span>
            </nav>
            {onTeam && !whatIf && <NextStepLine />}
            {whatIf && <WhatIfStrip pending={otherwise.isFetching} error={otherwise.error} onChange={assuming.open} />}
            <div className="review-body">
              {recheck.error && <Problems error={recheck.error} title={strings.theRecheckCouldNotBe} />}
              <Suspense fallback={<Loader m="xl" size="sm" />}>
                {onTeam && recheck.isPending ? <Loader m="xl" size="sm" /> : <Outlet />}
              </Suspense>
            </div>
            <Palette rows={rows} pages={pages} onPage={open} onCheck={select} act={act} onTeam={onTeam} />
            {onTeam && <WhatIfDialog opened={assumes} onClose={assuming.close} />}
            <Modal opened={helping} onClose={help.close} title={strings.keysTitle} size="sm">
              <table className="plain">
                <tbody>
                  {KEYS.map((k) => (
                    <tr key={k.act}>
                      <td>{k.says}</td>
                      <td className="n">
                        <span className="key">{k.shown}</span>
                      </td>
                    </tr>
                  ))}
                  <tr>
                    <td>{strings.findAnythingByItsName}</td>
                    <td className="n">
                      <span className="key">{strings.ctrlK}</span>
                    </td>
                  </tr>
                  <tr>
                    <td>{strings.fileTheRemark}</td>
                    <td className="n">
                      <span className="key">{strings.ctrlEnter}</span>
                    </td>
                  </tr>
                </tbody>
              </table>
            </Modal>
          </div>
        </BeforeProvider>
      </KeyProvider>
    </ReviewProvider>
  );
}

/** Exhibits with tables of which none is accepted yet: what they may state is not missing. */
const unread = (submission: Submission) =>
  submission.exhibits.filter(
    (e) =>
      !submission.tables.some((t) => t.exhibit === e.id) &&
      (e.reading?.tables.length || e.reading?.status === "queued" || e.reading?.status === "reading"),
  ).length;

/** How the submitted values were rechecked, in words. */
const coverageWords = (coverage: Recheck["coverage"]) =>
  [
    strings.recheckedWithOurOwnInputs(counted(coverage.independent, "value")),
    strings.recomputedFromTheirOwnUpstream(coverage.recomputed),
    ...coverage.reasons.map(({ why, values }) => strings.notRechecked(values, why)),
  ].join("; ");
