import { counted } from "../../shared/numbers";

/** What this part of the interface says, in one place to be read together. */
export const strings = {
  requirements: "Requirements",
  whatTheEditionRequires: (edition: string) => `What ${edition} requires a submission to show`,
  summary: (shown: number, applying: number, missing: number) =>
    `${String(shown)} of ${counted(applying, "requirement")} shown, ${String(missing)} missing`,
  which: "Which requirements",
  all: (count: number) => `all ${String(count)}`,
  missing: (count: number) => `missing ${String(count)}`,
  openOnes: (count: number) => `open ${String(count)}`,
  requirement: "requirement",
  clause: "clause",
  state: "state",
  level: "level",
  shown: "shown",
  missingState: "missing",
  notApplicable: "not applicable",
  open: "open",
  noneInThisFilter: "No requirement is in this state.",
  checks: "Checks",
  noCheckStatesIt: "No check states its absence. Write the remark here.",
  remark: "Remark",
  titleOfTheFinding: "Title of the finding",
  textOfTheFinding: "Text of the finding",
  fileIt: "File as a finding",
  filed: (number: number) => `Filed as finding ${String(number)}.`,
  notFiled: "The finding was not filed",
  inFinding: (number: number) => `In finding ${String(number)}`,
  notShown: (words: string) => `Not shown: ${words}`,
  draft: (words: string, clause: string, edition: string) =>
    `${edition}, ${clause}, requires ${words}. The submission does not show it. Please submit it, or state where it is shown.`,
  keys: " previous and next, ",
  opens: " opens its checks",
  print: "Print",
};
