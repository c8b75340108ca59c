/** The keys of a review; the same list makes the help and the command palette. */
export const KEYS = [
  { act: "next", hotkey: "j", shown: "j", says: "next check" },
  { act: "previous", hotkey: "k", shown: "k", says: "previous check" },
  { act: "nextDeviation", hotkey: "n", shown: "n", says: "next deviation" },
  { act: "previousDeviation", hotkey: "shift+n", shown: "N", says: "previous deviation" },
  { act: "derivation", hotkey: "d", shown: "d", says: "open or fold the derivation" },
  { act: "remark", hotkey: "r", shown: "r", says: "write the remark" },
  { act: "out", hotkey: "o", shown: "o", says: "show only what is out of plumb" },
  { act: "sheet", hotkey: "s", shown: "s", says: "to the sheet" },
  { act: "nextStage", hotkey: "]", shown: "]", says: "next stage" },
  { act: "previousStage", hotkey: "[", shown: "[", says: "previous stage" },
  { act: "help", hotkey: "shift+?", shown: "?", says: "these keys" },
] as const;
