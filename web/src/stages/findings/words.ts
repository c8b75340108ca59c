import type { Severity } from "../../shared/api/client";
import { strings } from "./strings";

export const SEVERITY: Record<Severity, string> = {
  must: strings.mustBeAnswered,
  should: strings.shouldBeAnswered,
  note: strings.forTheRecord,
};
export const ACTIONS: Record<string, string> = {
  draft: strings.reopen,
  issued: strings.issue,
  answered: strings.markAsAnswered,
  settled: strings.close,
  withdrawn: strings.withdraw,
};
