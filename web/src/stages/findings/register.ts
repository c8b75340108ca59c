import type { Finding } from "../../shared/api/client";

type Status = Finding["status"];
export const OPEN: Status[] = ["draft", "issued", "answered"];

export interface RegisterFilter {
  which: "all" | "open" | "mine" | "answered" | "due";
  severity: string;
  stage: string;
  submission: string;
  words: string;
}

export const EVERYTHING: RegisterFilter = { which: "all", severity: "", stage: "", submission: "", words: "" };

export const isOpen = (finding: Finding): boolean => OPEN.includes(finding.status);

/** The stage of the check that a finding begins with; '' of one without a check. */
export const stageOf = (finding: Finding): string => finding.evidence[0]?.stage ?? "";

/** Whether a finding is past its due date, by today's date as YYYY-MM-DD. */
export const isDue = (finding: Finding, today: string): boolean =>
  isOpen(finding) && finding.due != null && finding.due < today;

export function passes(finding: Finding, filter: RegisterFilter, me: number | undefined, today: string): boolean {
  const of = {
    all: true,
    open: isOpen(finding),
    mine: isOpen(finding) && finding.assignee?.id === me,
    answered: finding.status === "answered",
    due: isDue(finding, today),
  }[filter.which];
  const words = filter.words.trim().toLowerCase();
  return (
    of &&
    (filter.severity === "" || finding.severity === filter.severity) &&
    (filter.stage === "" || stageOf(finding) === filter.stage) &&
    (filter.submission === "" || finding.submission === filter.submission) &&
    (words === "" || `${String(finding.number)} ${finding.title} ${finding.text}`.toLowerCase().includes(words))
  );
}

export type Order = "number" | "severity" | "state" | "due";

const SEVERITIES = ["must", "should", "note"];
const STATES: string[] = ["answered", "draft", "issued", "settled", "withdrawn"];

/** Findings in an order; those that are alike by their numbers. */
export function ordered(findings: Finding[], order: Order): Finding[] {
  const turn: Record<Order, (f: Finding) => number | string> = {
    number: () => 0,
    severity: (f) => SEVERITIES.indexOf(f.severity ?? "must"),
    state: (f) => STATES.indexOf(f.status ?? "draft"),
    due: (f) => f.due ?? "9999",
  };
  const key = turn[order];
  return [...findings].sort((a, b) => {
    const [one, other] = [key(a), key(b)];
    return one < other ? -1 : one > other ? 1 : a.number - b.number;
  });
}

export interface Piece {
  text: string;
  /** id of the check that is mentioned */
  check?: string;
  /** number of the finding that is mentioned */
  finding?: number;
}

/** A text cut where it mentions checks by their ids, and findings as #4. */
export function mentions(text: string, checks: ReadonlySet<string>): Piece[] {
  const pieces: Piece[] = [];
  let end = 0;
  for (const found of text.matchAll(/#(\d{1,5})\b|(?<![\w.])[A-Za-z]\w*(?:\.\w[\w+-]*)+/g)) {
    const [whole, number] = found;
    if (number === undefined && !checks.has(whole)) continue;
    if (found.index > end) pieces.push({ text: text.slice(end, found.index) });
    pieces.push(number === undefined ? { text: whole, check: whole } : { text: whole, finding: Number(number) });
    end = found.index + whole.length;
  }
  if (end < text.length) pieces.push({ text: text.slice(end) });
  return pieces;
}
