import type { Finding, Recheck, Review } from "../shared/api/client";
import { checksOf } from "../shared/findings";
import { strings } from "./strings";

export interface NextStep {
  words: string;
  /** page that it is done on */
  page: string;
  /** check to select there */
  check?: string;
  /** finding to open there */
  finding?: number;
}

/** What a reviewer does next in a review, from its present state; null where it waits for others or is closed. */
export function nextStep(review: Review, recheck: Recheck | undefined, findings: Finding[]): NextStep | null {
  if (review.status === "closed") return null;
  const states = new Map(review.submissions.map((s) => [s.number, s]));
  const latest = [...states.values()].sort((a, b) => b.number - a.number)[0];
  if ((review.brief.stories ?? []).length === 0) return { words: strings.nextBrief, page: "brief" };
  if (!latest || latest.claims === 0) return { words: strings.nextExhibits, page: "exhibits" };
  if (latest.status === "draft") return { words: strings.nextAccept(latest.label), page: "exhibits" };
  const answered = findings.find((f) => f.status === "answered");
  const older = findings.some((f) => isOpen(f) && f.submission !== null && f.submission !== latest.label);
  if (older && review.submissions.filter((s) => s.claims > 0).length > 1) {
    return { words: strings.nextRounds(latest.label), page: "rounds" };
  }
  if (answered) return { words: strings.nextAnswer(answered.number), page: "findings", finding: answered.number };
  const filed = new Set(findings.flatMap((f) => (f.status === "withdrawn" ? [] : checksOf(f))));
  const origin = recheck?.checks.find((c) => c.role === "origin" && !filed.has(c.id));
  if (origin) return { words: strings.nextOrigin(origin.label), page: "sheet", check: origin.id };
  const draft = findings.find((f) => f.status === "draft");
  if (draft) return { words: strings.nextIssue(draft.number), page: "findings", finding: draft.number };
  if (findings.some((f) => f.status === "issued")) return { words: strings.nextWait, page: "findings" };
  return recheck ? { words: strings.nextReport, page: "report" } : null;
}

const isOpen = (f: Finding): boolean => f.status === "issued" || f.status === "answered";
