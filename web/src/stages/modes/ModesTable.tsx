import type { ModalAnswer, SubmittedModes } from "../../model/answers";
import type { Check } from "../../shared/api/client";
import { Mark } from "../../shared/Mark";
import { strings } from "./strings";
import css from "./ModesTable.module.css";

interface Props {
  answer: ModalAnswer | undefined;
  submitted: SubmittedModes | null;
  chosen: number;
  onChoose: (mode: number) => void;
  checks: Check[];
  onSelect: (id: string) => void;
}

const share = (v: number | undefined | null) => (v === undefined || v === null ? "–" : (100 * v).toFixed(1));
const AXES = ["X", "Y", "RZ"] as const;

/** Theirs and ours in one table, rows matched by shape; what one side lacks is said. */
export function ModesTable({ answer, submitted, chosen, onChoose, checks, onSelect }: Props) {
  const comparison = submitted?.comparison ?? null;
  const matched = new Map((comparison?.rows ?? []).map((r) => [r.ours, r]));
  const lastMatched = Math.max(0, ...(comparison?.rows ?? []).filter((r) => r.theirs !== null).map((r) => r.ours));
  const shown = answer?.modes.slice(0, Math.max(12, lastMatched)) ?? [];
  const unmatched = submitted
    ? submitted.theirs.filter((_, i) => !comparison?.rows.some((r) => r.theirs === i + 1))
    : [];
  const off = (mode: number | null | undefined, quantity: string, direction: string | null) => {
    if (!mode) return undefined;
    return checks.find(
      (c) =>
        c.quantity === quantity &&
        c.direction === direction &&
        c.mode === mode &&
        (c.level ?? 0) > 1 &&
        (c.verdict === "differs" || c.verdict === "breaches"),
    );
  };
  const theirsCell = (mode: number | null | undefined, text: string, quantity: string, direction: string | null) => {
    const check = off(mode, quantity, direction);
    if (!check) return <span className="theirs">{text}</span>;
    return (
      <button
        type="button"
        className="linklike off"
        title={strings.outOfPlumbOpenIt}
        onClick={(e) => {
          e.stopPropagation();
          onSelect(check.id);
        }}
      >
        <Mark shape={check.role === "inherited" ? "inherited" : "origin"} /> <i className="theirs">{text}</i>
      </button>
    );
  };
  const theirs = (number: number | null | undefined) => (number ? submitted?.theirs[number - 1] : undefined);
  const met = (mode: number) => (["X", "Y"] as const).filter((d) => answer?.reached_at[d] === mode);
  return (
    <table className="plain modes" aria-label={strings.modesTheirsAndOurs}>
      <thead>
        <tr>
          <th rowSpan={2}>{strings.ours}</th>
          <th rowSpan={2}>{strings.kind}</th>
          <th className="n" colSpan={4}>
            {strings.oursTSXY}
          </th>
          <th className="n" rowSpan={2}>
            {strings.theirs}
          </th>
          <th className="n" colSpan={4}>
            {strings.theirsTSXY}
          </th>
          <th className="n" rowSpan={2}>
            {strings.shapes}
            <br />
            {strings.alike}
          </th>
        </tr>
        <tr>
          <th className="n">T</th>
          {AXES.map((a) => (
            <th key={a} className="n">
              {a}
            </th>
          ))}
          <th className="n">T</th>
          {AXES.map((a) => (
            <th key={a} className="n">
              {a}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {shown.map((m, i) => {
          const row = matched.get(i + 1),
            other = theirs(row?.theirs),
            number = other?.mode;
          const missing = comparison?.missing.includes(i + 1) ?? false;
          const here = met(i + 1);
          return (
            <tr
              key={i}
              className={i + 1 === chosen ? "on" : ""}
              aria-selected={i + 1 === chosen}
              tabIndex={0}
              onClick={() => {
                onChoose(i + 1);
              }}
              onKeyDown={(e) => {
                if (e.key === "Enter") onChoose(i + 1);
              }}
            >
              <td>{i + 1}</td>
              <td>
                {m.kind}
                {here.length > 0 && (
                  <span className={`chip ${css["aside"] ?? ""}`}>
                    {strings.inWord(Math.round(100 * (answer?.target ?? 0.9)), here.join(", "))}
                  </span>
                )}
              </td>
              <td className="n ours">{m.T.toFixed(3)}</td>
              {AXES.map((a) => (
                <td key={a} className="n ours">
                  {share(m.mass_ratio[a])}
                </td>
              ))}
              {other ? (
                <>
                  <td className="n theirs">{number}</td>
                  <td className="n">{theirsCell(number, other.T?.toFixed(3) ?? "–", "T_mode", null)}</td>
                  <td className="n">{theirsCell(number, share(other.mass_ratio.X), "mass_ratio", "X")}</td>
                  <td className="n">{theirsCell(number, share(other.mass_ratio.Y), "mass_ratio", "Y")}</td>
                  <td className="n">{theirsCell(number, share(other.mass_ratio.RZ), "mass_ratio_RZ", null)}</td>
                  <td className="n quiet">{row?.mac === null || row?.mac === undefined ? "" : row.mac.toFixed(2)}</td>
                </>
              ) : (
                <td colSpan={6} className={missing ? "gone" : "quiet"}>
                  {submitted ? (missing ? strings.missingFromTheSubmittedList : "") : ""}
                </td>
              )}
            </tr>
          );
        })}
        {unmatched.map((m) => (
          <tr key={`t${String(m.mode)}`}>
            <td colSpan={6} className="quiet">
              {answer ? strings.noMatchingModeInThe : strings.theReferenceModelHasNot}
            </td>
            <td className="n theirs">{m.mode}</td>
            <td className="n theirs">{m.T?.toFixed(3) ?? "–"}</td>
            {AXES.map((a) => (
              <td key={a} className="n theirs">
                {share(m.mass_ratio[a])}
              </td>
            ))}
            <td />
          </tr>
        ))}
      </tbody>
      {answer && shown.length < answer.modes.length && (
        <tfoot>
          <tr>
            <td colSpan={12} className="quiet">
              {strings.and}
              {answer.modes.length - shown.length}
              {strings.moreOfOursTo}
              {answer.modes.at(-1)?.T.toFixed(3)} s
            </td>
          </tr>
        </tfoot>
      )}
    </table>
  );
}
