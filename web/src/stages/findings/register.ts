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

/** What a text may mention: ids of checks by what they are called, and numbers of findings. */
export interface Known {
  checks: ReadonlyMap<string, string>;
  findings: ReadonlySet<number>;
}

/** Checks by their ids and labels; a symbol alone is a word like others, and mentions nothing. */
export function known(
  checks: readonly { id: string; label: string }[],
  findings: readonly { number: number }[],
): Known {
  const named = new Map<string, string>();
  for (const { id, label } of checks) {
    for (const name of [id, label]) {
      if (/[ .]/.test(name) && !named.has(name)) named.set(name, id);
    }
  }
  return { checks: named, findings: new Set(findings.map((f) => f.number)) };
}

/** Words that a name may consist of. */
const MOST_WORDS = 6;

/** A text cut where it mentions checks by their ids or labels, and findings as #4. */
export function mentions(text: string, { checks, findings }: Known): Piece[] {
  const pieces: Piece[] = [];
  let end = 0;
  const add = (from: number, piece: Piece) => {
    if (from > end) pieces.push({ text: text.slice(end, from) });
    pieces.push(piece);
    end = from + piece.text.length;
  };
  const words = [...text.matchAll(/\S+/g)];
  words.forEach((word, i) => {
    const from = word.index + (/^[("'\u201c]*/.exec(word[0])?.[0].length ?? 0);
    if (from < end) return;
    const number = /^#(\d{1,5})(?!\w)/.exec(text.slice(from, from + 7));
    if (number && findings.has(Number(number[1]))) {
      add(from, { text: number[0], finding: Number(number[1]) });
      return;
    }
    for (let last = Math.min(i + MOST_WORDS, words.length) - 1; last >= i; last--) {
      const until = words[last];
      if (!until) continue;
      const name = text.slice(from, until.index + until[0].length);
      const called = [name, name.replace(/[.,;:!?)"'\u201d]+$/, "")].find((n) => checks.has(n));
      const check = called && checks.get(called);
      if (called && check) {
        add(from, { text: called, check });
        return;
      }
    }
  });
  if (end < text.length) pieces.push({ text: text.slice(end) });
  return pieces;
}
