import { ActionIcon, SegmentedControl, Select, Tooltip } from "@mantine/core";
import { useElementSize, useMergedRef, useResizeObserver } from "@mantine/hooks";
import { useEffect, useRef, useState, type ReactNode } from "react";
import { Link, useParams } from "react-router";
import { MarkAt, markColour, shapeOf, verdictWords } from "../shared/Mark";
import { SymbolText } from "../shared/Symbol";
import {
  codesOf,
  countsOf,
  deviates,
  near,
  offset,
  REACH,
  type SheetFilter,
  type SheetRow,
  type SheetStage,
} from "./layout";
import "./sheet.css";
import { strings } from "./strings";

const ROW = 19;
const HEAD = 8;
/** px of questions and notes from the line */
const BESIDE = 18;

interface Props {
  /** the stages in their order, with their pages */
  stages: readonly SheetStage[];
  rows: SheetRow[];
  shown: SheetRow[];
  selected: string | null;
  folded: string[];
  filter: SheetFilter;
  onSelect: (id: string) => void;
  onFold: (stage: string) => void;
  /** absent where the lines are chosen elsewhere */
  onFilter?: (filter: SheetFilter) => void;
  /** how many requirements of each stage are not shown */
  missing?: Readonly<Record<string, number>>;
  /** what can be done with the lines that are shown */
  tools?: ReactNode;
  /** where marks were before, in multiples of the tolerance, by check */
  ghosts?: ReadonlyMap<string, number>;
  /** whether marks with a ghost hang on the line now, as under a cause that explains them */
  onLine?: boolean;
}

const NO_GHOSTS: ReadonlyMap<string, number> = new Map();

const lineId = (check: string) => `line-${check.replace(/\W/g, "-")}`;

/** Where lines and stages are on the sheet, top down. */
function placed(
  stages: readonly SheetStage[],
  shown: SheetRow[],
  rows: SheetRow[],
  folded: string[],
  missing: Readonly<Record<string, number>>,
) {
  let y = 0;
  return stages
    .filter(({ id }) => rows.some((r) => r.stage === id))
    .map(({ id: stage, page }) => {
      const stageRows = folded.includes(stage) ? [] : shown.filter((r) => r.stage === stage);
      const top = y;
      const counts = countsOf(rows.filter((r) => r.stage === stage).flatMap((r) => r.all));
      const shownCounts = Object.values(counts).filter((n) => n > 0).length + (missing[stage] ? 1 : 0);
      const height = Math.max(stageRows.length * ROW, 22 + 16 * shownCounts) + 2 * HEAD;
      y += height;
      return {
        stage,
        page,
        top,
        height,
        counts,
        lines: stageRows.map((row, i) => ({ row, y: top + HEAD + i * ROW + ROW / 2 })),
      };
    });
}

/** The spine of stages with every check hanging beside it; the horizontal offset is the deviation. */
export function PlumbSheet({
  stages: all,
  rows,
  shown,
  selected,
  folded,
  filter,
  onSelect,
  onFold,
  onFilter,
  missing = {},
  tools,
  ghosts = NO_GHOSTS,
  onLine = false,
}: Props) {
  const { ref, width } = useElementSize();
  const { id = "" } = useParams();
  const scroller = useRef<HTMLDivElement>(null);
  const stages = placed(all, shown, rows, folded, missing);
  const height = stages.reduce((sum, s) => sum + s.height, 0);
  const half = Math.max((width - 24) / 2, 60);
  const middle = width / 2;
  const unit = half / REACH;
  const chosen = rows.find((r) => r.check.id === selected);
  const order = stages.flatMap((s) => s.lines.map((l) => l.row));
  const place = new Map(order.map((row, i) => [row, i + 1]));
  const [sight, setSight] = useState({ top: 0, height: 0 });
  const look = () => {
    const { scrollTop: top = 0, clientHeight: h = 0 } = scroller.current ?? {};
    // a screenful further is drawn already, so not every step of scrolling draws anew
    setSight((s) => (Math.abs(s.top - top) > h / 2 || s.height !== h ? { top, height: h } : s));
  };
  // the body is as high as the window leaves it
  const [measured, { height: bodyHeight }] = useResizeObserver<HTMLDivElement>();
  const body = useMergedRef(scroller, measured);
  useEffect(look, [bodyHeight]);

  useEffect(() => {
    scroller.current?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: "nearest" });
  }, [selected]);

  const related = (row: SheetRow): boolean =>
    !!chosen &&
    (row.all.some((c) => c.rests_on.includes(chosen.check.id)) || chosen.check.rests_on.includes(row.check.id));

  return (
    <section className="sheet" aria-label={strings.plumbSheet}>
      <div className="sheet-tools">
        {onFilter && <Filters rows={rows} filter={filter} onFilter={onFilter} />}
        {tools}
      </div>
      <div className="sheet-axis" aria-hidden>
        <div className="sheet-axis-track">
          {[-100, -10, -3, 3, 10, 100].map((m) => (
            <span key={m} style={{ left: middle + offset(m) * unit }}>
              {Math.abs(m)}×
            </span>
          ))}
          <span style={{ left: middle }}>{strings.tolerance}</span>
          <span className="edge-left">{strings.theirsLower}</span>
          <span className="edge-right">{strings.higher}</span>
        </div>
      </div>
      <div className="sheet-body" ref={body} onScroll={look}>
        <div className="sheet-stages">
          {stages.map(({ stage, page, top, height: h, counts }) => {
            const isFolded = folded.includes(stage);
            return (
              <div key={stage} className="sheet-stage" style={{ top, height: h }}>
                <div className="sheet-stage-name">
                  <ActionIcon
                    variant="transparent"
                    size={24}
                    color="gray"
                    aria-label={`${isFolded ? strings.open : strings.close} ${stage}`}
                    aria-expanded={!isFolded}
                    onClick={() => {
                      onFold(stage);
                    }}
                  >
                    <svg
                      width="9"
                      height="9"
                      viewBox="0 0 9 9"
                      aria-hidden
                      style={{ transform: isFolded ? "rotate(-90deg)" : undefined }}
                    >
                      <path d="M1 2.5l3.5 4 3.5-4" fill="none" stroke="var(--quiet)" strokeWidth="1.4" />
                    </svg>
                  </ActionIcon>
                  {page ? <Link to={`/reviews/${id}/${page}`}>{stage}</Link> : <span>{stage}</span>}
                </div>
                <div className="sheet-stage-counts">
                  {counts.here > 0 && <b>{strings.here(counts.here)}</b>}
                  {counts.inherited > 0 && <span>{strings.inherited(counts.inherited)}</span>}
                  {counts.questions > 0 && <span>{strings.questionsCount(counts.questions)}</span>}
                  {counts.gaps > 0 && <span className="quiet">{strings.gap(counts.gaps)}</span>}
                  {(missing[stage] ?? 0) > 0 && (
                    <span className="quiet">{strings.requirementsMissing(missing[stage] ?? 0)}</span>
                  )}
                  {counts.open > 0 && <span className="quiet">{strings.missingInputs(counts.open)}</span>}
                  {counts.agree > 0 && <span className="quiet">{strings.agree(counts.agree)}</span>}
                </div>
              </div>
            );
          })}
        </div>
        <div
          className="sheet-lines"
          role="listbox"
          aria-label={strings.checks}
          tabIndex={0}
          aria-activedescendant={chosen ? lineId(chosen.check.id) : undefined}
          onKeyDown={(e) => {
            const by = { ArrowDown: 1, ArrowUp: -1 }[e.key];
            if (by === undefined) return;
            e.preventDefault();
            const next = order[order.findIndex((r) => r === chosen) + by];
            if (next) onSelect(next.check.id);
          }}
        >
          {stages.flatMap(({ lines }) =>
            near(lines, sight, selected).map(({ row, y }) => (
              <Tooltip
                key={row.check.id}
                label={`${row.check.meaning}: ${verdictWords(row.check)}`}
                position="top-start"
              >
                <div
                  role="option"
                  aria-setsize={order.length}
                  aria-posinset={place.get(row)}
                  id={lineId(row.check.id)}
                  aria-selected={row.check.id === selected}
                  aria-label={`${row.label}: ${verdictWords(row.check)}`}
                  className={"sheet-line" + (row.all.some(deviates) ? " out" : "") + (related(row) ? " related" : "")}
                  style={{ top: y - ROW / 2 }}
                  onClick={() => {
                    onSelect(row.check.id);
                  }}
                >
                  <span className="sheet-label">
                    <SymbolText text={row.label} />
                    {row.check.slip && <span className="sheet-code">{row.check.slip}</span>}
                  </span>
                </div>
              </Tooltip>
            )),
          )}
        </div>
        <div className="sheet-track" ref={ref} style={{ height }}>
          <svg width={width} height={height} aria-hidden>
            <rect x={middle - unit} y={0} width={2 * unit} height={height} fill="var(--band)" />
            {[-100, -10, -3, 3, 10, 100].map((m) => (
              <line
                key={m}
                x1={middle + offset(m) * unit}
                x2={middle + offset(m) * unit}
                y1={0}
                y2={height}
                stroke="var(--line)"
                strokeDasharray="1 3"
              />
            ))}
            <line x1={middle} x2={middle} y1={0} y2={height - 8} stroke="var(--ink)" strokeWidth={1.6} />
            <path d={`M${String(middle - 5)} ${String(height - 12)}h10l-5 12z`} fill="var(--ink)" />
            {stages.map(({ stage, top, height: h, lines }) => (
              <g key={stage}>
                {lines.length === 0 && folded.includes(stage) && (
                  <Folded rows={rows.filter((r) => r.stage === stage)} y={top + h / 2} middle={middle} unit={unit} />
                )}
                {near(lines, sight, selected).map(({ row, y }) => {
                  const ghost = ghosts.get(row.check.id);
                  const explained = onLine && ghost !== undefined;
                  const shape = explained ? "dot" : shapeOf(row.check);
                  // questions and notes have no offset: they stand beside the line
                  const beside = shape === "question" || shape === "note";
                  const x = middle + (beside ? BESIDE : explained ? 0 : offset(row.check.multiples ?? 0) * unit);
                  const before = ghost === undefined ? undefined : middle + offset(ghost) * unit;
                  const out = shape === "origin" || shape === "inherited" || shape === "breach";
                  return (
                    <g
                      key={row.check.id}
                      opacity={
                        chosen && chosen.check.role === "origin" && shape === "inherited" && !related(row) ? 0.35 : 1
                      }
                    >
                      {before !== undefined && <Ghost from={before} to={x} y={y} />}
                      {out && (
                        <line
                          x1={middle}
                          x2={x}
                          y1={y}
                          y2={y}
                          stroke={markColour(shape)}
                          strokeWidth={row.check.role === "inherited" ? 1.1 : 2}
                          strokeDasharray={row.check.role === "inherited" ? "3 3" : undefined}
                        />
                      )}
                      {row.check.id === selected && (
                        <circle cx={x} cy={y} r={10} fill="none" stroke="var(--ink)" strokeWidth={1.4} />
                      )}
                      <MarkAt shape={shape} x={x} y={y} />
                    </g>
                  );
                })}
              </g>
            ))}
          </svg>
        </div>
        {shown.length === 0 && <p className="sheet-none">{strings.noChecksMatchThisFilter}</p>}
      </div>
      <div className="sheet-legend">
        {(["origin", "inherited", "breach", "question", "gap", "open", "note", "dot"] as const).map((shape) => (
          <span key={shape}>
            <svg width={14} height={14} viewBox="0 0 14 14" aria-hidden>
              <MarkAt shape={shape} x={7} y={7} />
            </svg>
            {
              {
                origin: strings.startsHere,
                inherited: strings.inheritedMark,
                breach: strings.beyondALimit,
                question: strings.questionMark,
                note: strings.noteMark,
                gap: strings.gapMark,
                open: strings.missingInput,
                dot: strings.agrees,
              }[shape]
            }
          </span>
        ))}
      </div>
    </section>
  );
}

/** Which lines the sheet shows. */
function Filters({
  rows,
  filter,
  onFilter,
}: {
  rows: SheetRow[];
  filter: SheetFilter;
  onFilter: (filter: SheetFilter) => void;
}) {
  return (
    <>
      <SegmentedControl
        aria-label={strings.whichChecks}
        value={filter.which}
        onChange={(which) => {
          onFilter({ ...filter, which });
        }}
        data={[
          { value: "all", label: strings.allChecks },
          { value: "out", label: strings.outOfPlumb },
          { value: "questions", label: strings.questions },
        ]}
      />
      <SegmentedControl
        aria-label={strings.direction}
        value={filter.direction}
        onChange={(v) => {
          onFilter({ ...filter, direction: v });
        }}
        data={[
          { value: "", label: strings.xAndY },
          { value: "X", label: "X" },
          { value: "Y", label: "Y" },
        ]}
      />
      <SegmentedControl
        aria-label={strings.levelOfIndependence}
        value={filter.level}
        onChange={(v) => {
          onFilter({ ...filter, level: v });
        }}
        data={[
          { value: "", label: strings.anyLevel },
          { value: "1", label: "1" },
          { value: "2", label: "2" },
          { value: "3", label: "3" },
        ]}
      />
      <Select
        aria-label={strings.codeOfTheCatalogue}
        placeholder={strings.anyCode}
        size="xs"
        w={104}
        clearable
        value={filter.code || null}
        data={codesOf(rows)}
        onChange={(code) => {
          onFilter({ ...filter, code: code ?? "" });
        }}
      />
    </>
  );
}

/** Where a mark was, and the way to where it is. */
function Ghost({ from, to, y }: { from: number; to: number; y: number }) {
  return (
    <g opacity={0.55}>
      <line x1={from} x2={to} y1={y} y2={y} stroke="var(--ours)" strokeWidth={1} strokeDasharray="1 3" />
      <path
        d={`M${String(from)} ${String(y - 5)}l5 5-5 5-5-5z`}
        fill="var(--ground)"
        stroke="var(--off)"
        strokeWidth={1}
      />
    </g>
  );
}

/** A folded stage still shows its marks, one over the other. */
function Folded({ rows, y, middle, unit }: { rows: SheetRow[]; y: number; middle: number; unit: number }) {
  return (
    <g>
      {rows.map((r) => (
        <MarkAt key={r.check.id} shape={shapeOf(r.check)} x={middle + offset(r.check.multiples ?? 0) * unit} y={y} />
      ))}
    </g>
  );
}
