import type { Finding } from "./api/client";

/** Ids of the checks that a finding rests on, those that were linked later included. */
export const checksOf = (finding: Finding): string[] => [
  ...finding.checks,
  ...finding.further.map((link) => link.check_id),
];

/** Whether a finding that was not withdrawn rests on a check. */
export const restsOn = (finding: Finding, check: string): boolean =>
  finding.status !== "withdrawn" && checksOf(finding).includes(check);
