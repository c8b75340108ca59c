import type { Check } from "./api/client";
import { strings } from "./strings";

const VERDICT_WORDS: Partial<Record<Check["verdict"], string>> = {
  differs: strings.titleDiffers,
  question: strings.titleNeedsAnExplanation,
  open: strings.titleCannotBeRecheckedYet,
};

/** The title of a finding about a check. */
export function titleOf(check: Check): string {
  if (check.verdict === "gap")
    return strings.titleIsNotStated(check.meaning, check.direction ? ` ${check.direction}` : "");
  const where = [check.direction, check.story].filter(Boolean).join(" ");
  const words =
    check.verdict === "breaches" ? strings.titleBeyondLimit(check.limit?.side === "min") : VERDICT_WORDS[check.verdict];
  return [check.meaning, where, words].filter(Boolean).join(" ");
}
