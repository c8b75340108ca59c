import { useReviewContext } from "../ReviewContext";
import type { Check } from "../../shared/api/client";
import { NOTHING_ASSUMED } from "./assumptions";
import { strings } from "./strings";

const without = (ids: string[], id: string) => ids.filter((i) => i !== id);

/** On the bench: take the value of one side for both. */
export function Assume({ check }: { check: Check }) {
  const { whatIf = NOTHING_ASSUMED, assume } = useReviewContext();
  if (!check.theirs || !(check.carried ?? check.independent)) return null;
  const taken = whatIf.theirs.includes(check.id) || whatIf.ours.includes(check.id);
  if (check.role === null && !taken) return null;
  const take = (side: "theirs" | "ours") => {
    const other = side === "theirs" ? "ours" : "theirs";
    const already = whatIf[side].includes(check.id);
    assume({
      ...whatIf,
      [side]: already ? without(whatIf[side], check.id) : [...whatIf[side], check.id],
      [other]: without(whatIf[other], check.id),
    });
  };
  return (
    <p className="bench-from assume">
      {(["theirs", "ours"] as const).map((side) => (
        <button
          key={side}
          type="button"
          className="linklike"
          aria-pressed={whatIf[side].includes(check.id)}
          onClick={() => {
            take(side);
          }}
        >
          {side === "theirs" ? strings.takeTheirs : strings.takeOurs}
        </button>
      ))}
    </p>
  );
}
