import type { Check, Verdict } from "./api/client";
import { figures, unitLabel } from "./numbers";
import { strings } from "./strings";
import css from "./Mark.module.css";

type Judged = Pick<Check, "verdict" | "role" | "follows"> & Partial<Pick<Check, "limit" | "unit">>;

/** The words besides the shapes, so that a verdict can be read without colour. */
export function verdictWords(check: Judged): string {
  if (check.verdict === "agrees") return check.follows ? "agrees" : strings.agreesButNotWithTheir;
  if (check.verdict === "gap") return strings.gapNotStated;
  if (check.verdict === "open") return strings.missingInputNotRecheckedYet;
  if (check.verdict === "question") return strings.questionNeedsAnExplanation;
  if (check.verdict === "note") return strings.forTheRecord;
  const where = check.role === "inherited" ? strings.inherited : strings.origin;
  if (check.verdict === "differs") return strings.differs(where);
  const limit = check.limit ? ` ${figures(check.limit.value)} ${unitLabel(check.unit ?? "")}`.trimEnd() : "";
  return check.limit?.side === "min" ? strings.belowTheMinimum(limit, where) : strings.exceedsTheLimit(limit, where);
}

export type MarkShape = "dot" | "origin" | "inherited" | "breach" | "gap" | "open" | "question" | "note";

export function shapeOf(check: { verdict: Verdict; role: Check["role"] }): MarkShape {
  if (check.verdict === "breaches") return "breach";
  if (check.verdict === "differs") return check.role === "inherited" ? "inherited" : "origin";
  return check.verdict === "agrees" ? "dot" : check.verdict;
}

const COLOUR: Record<MarkShape, string> = {
  dot: "var(--ours)",
  origin: "var(--off)",
  inherited: "var(--off)",
  breach: "var(--limit)",
  gap: "var(--quiet)",
  open: "var(--quiet)",
  question: "var(--off-text)",
  note: "var(--quiet)",
};

export const markColour = (shape: MarkShape): string => COLOUR[shape];

/** A verdict's shape, centred on (x, y) of the surrounding SVG. */
export function MarkAt({ shape, x, y }: { shape: MarkShape; x: number; y: number }) {
  const colour = COLOUR[shape];
  const lozenge = `M${String(x)} ${String(y - 6)}l6 6-6 6-6-6z`;
  switch (shape) {
    case "origin":
      return <path d={lozenge} fill={colour} stroke="var(--ink)" strokeWidth={0.8} />;
    case "inherited":
      return <path d={lozenge} fill="var(--ground)" stroke={colour} strokeWidth={1.5} />;
    case "breach":
      return <rect x={x - 5} y={y - 5} width={10} height={10} fill={colour} />;
    case "gap":
      return (
        <circle cx={x} cy={y} r={5} fill="var(--ground)" stroke={colour} strokeWidth={1.5} strokeDasharray="4 2.3" />
      );
    case "open":
      return <circle cx={x} cy={y} r={4} fill="var(--ground)" stroke={colour} strokeWidth={1.2} />;
    case "question":
      return (
        <path
          d={`M${String(x)} ${String(y - 5.5)}l6 10.5h-12z`}
          fill="var(--ground)"
          stroke={colour}
          strokeWidth={1.5}
          strokeLinejoin="round"
        />
      );
    case "note":
      return <path d={`M${String(x - 4)} ${String(y)}h8`} stroke={colour} strokeWidth={1.8} />;
    default:
      return <circle cx={x} cy={y} r={3.4} fill={colour} />;
  }
}

/** A verdict's shape standing in text. */
export function Mark({ shape }: { shape: MarkShape }) {
  return (
    <svg width={14} height={14} viewBox="0 0 14 14" aria-hidden className={css["fill"]}>
      <MarkAt shape={shape} x={7} y={7} />
    </svg>
  );
}
