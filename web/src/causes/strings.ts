import { counted } from "../shared/numbers";

export const strings = {
  explain: (causes: number, explained: number, deviating: number) =>
    `${counted(causes, "cause")} ${causes === 1 ? "explains" : "explain"} ${String(explained)} of ${counted(deviating, "deviating value")}`,
  none: (deviating: number) =>
    `No single mistake, and no set of mistakes, gives ${deviating === 1 ? "the deviating value" : `the ${String(deviating)} deviating values`}.`,
  searching: "Looking for causes of the deviations",
  searched: "How much of the search is done",
  stop: "Stop",
  stopped: "The search for causes was stopped.",
  failed: "The search for causes failed.",
  again: "Search again",
  notSearched: "The causes could not be found",
  causes: "Causes by weight",
  cause: "Cause",
  whichMistake: "which mistake gives exactly this number",
  reproduces: (values: number) => `reproduces ${counted(values, "submitted value")}`,
  leaves: (values: number) =>
    values === 1
      ? "1 value below it rests on other deviations too"
      : `${String(values)} values below it rest on other deviations too`,
  closeness: (closeness: string) => `within ${closeness}`,
  toTheLastDigit: "to the last digit given",
  explained: (values: number) => `explains ${counted(values, "submitted value")}`,
  bits: (bits: string) => `${bits} bits of evidence`,
  apply: "apply",
  applied: "applied",
  noneForThis: "No mistake of the catalogue gives this number.",
  and: " and ",
  appliedCause: "Cause applied",
  agreeUnderIt: (explained: number, deviating: number) =>
    `${String(explained)} of ${counted(deviating, "deviating value")} agree under it`,
  leave: "Leave",
  esc: "Esc",
  file: "File as finding",
  fileKey: "f",
  filed: (number: number) => `Filed as finding ${String(number)}.`,
  notFiled: "The finding was not filed",
  inFinding: (number: number) => `In finding ${String(number)}`,
  toTheCheck: (label: string) => `Show ${label}`,
};
