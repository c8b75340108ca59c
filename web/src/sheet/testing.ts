import type { Check } from "../shared/api/client";

/** A check for tests: in plumb unless changed. */
export function check(changes: Partial<Check>): Check {
  return {
    id: "V.X",
    kind: "value",
    quantity: "V",
    direction: "X",
    story: null,
    point: null,
    mode: null,
    case: "",
    stage: "lateral",
    label: "V X",
    symbol: "V",
    symbol_tex: "V",
    meaning: "Base shear",
    unit: "kN",
    clause: "12.8.1",
    theirs: null,
    carried: null,
    independent: null,
    shown: null,
    multiples: 0,
    verdict: "agrees",
    role: null,
    level: 3,
    limit: null,
    follows: true,
    rests_on: [],
    used_by: 0,
    step: "V.X",
    note: "",
    slip: null,
    draft: "",
    ...changes,
  };
}
