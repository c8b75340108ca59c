import { Button } from "@mantine/core";
import { useState } from "react";
import type { Brief, Edition, EditionInput, Need, Step } from "../shared/api/client";
import { trimmed } from "../shared/numbers";
import { SymbolText } from "../shared/Symbol";
import { Field } from "./Field";
import { give, given, type Change } from "./places";
import { SystemParts } from "./SystemParts";
import { strings } from "./strings";

interface Props {
  edition: Edition;
  brief: Brief;
  change: Change;
  needs: Need[];
  /** our derivation under this edition: what the code gives is in the fields that are left empty */
  steps?: Step[] | undefined;
  /** which inputs to show, in their order */
  wanted: (input: EditionInput) => boolean;
  /** show only what is needed or given, and the rest on demand */
  onDemand?: boolean;
}

const DIRECTIONS = ["X", "Y"] as const;

/** What an edition takes of site, occupancy and system: what it needs beyond what is known, and the rest on demand. */
export function EditionFields({ edition, brief, change, needs, steps, wanted, onDemand = false }: Props) {
  const [all, setAll] = useState(!onDemand);
  const inputs = edition.inputs.filter((i) => wanted(i) && !i.shared && i.form !== "data");
  const needed = (input: EditionInput, direction: string | null) =>
    needs.some((n) => n.name === input.name && (direction === null || n.direction === direction));
  const hasValue = (input: EditionInput, direction: string | null) => {
    const value = given(brief, edition.id, input, direction);
    return value !== undefined && value !== null && value !== false;
  };
  // a factor that is lacking may come from the table of systems as well
  const lacksFactor =
    needs.some((n) => edition.systems[0] && n.name in edition.systems[0].factors) || needs.some((n) => n.name === "q");
  const shown = (input: EditionInput) =>
    all ||
    DIRECTIONS.some(
      (d) => needed(input, input.per_direction ? d : null) || hasValue(input, input.per_direction ? d : null),
    ) ||
    (lacksFactor && input.name === "lateral_system");
  const single = inputs.filter((i) => !i.per_direction && shown(i));
  const both = inputs.filter((i) => i.per_direction && shown(i));
  const hidden = inputs.filter((i) => !shown(i)).length;
  const commit = (input: EditionInput, direction: "X" | "Y" | null) => (value: number | string | boolean | null) => {
    change((b) => {
      give(b, edition.id, input, direction, value);
    });
  };
  const present = (input: EditionInput, direction: "X" | "Y" | null) => {
    if (input.name === "T_a_formula") return input.options[0]?.toString();
    const value = steps?.find(
      (s) => s.id === (direction ? `${input.name}.${direction}` : input.name) && s.source === "rule",
    )?.value;
    return typeof value === "number" ? trimmed(value) : typeof value === "string" ? value : undefined;
  };
  return (
    <div className="edition-fields">
      {single.some((i) => i.form !== "flag") && (
        <div className="fields">
          {single
            .filter((i) => i.form !== "flag")
            .map((input) => (
              <div key={input.name} className={needed(input, null) ? "field needed" : "field"}>
                <Field
                  edition={edition}
                  input={input}
                  direction={null}
                  value={given(brief, edition.id, input, null)}
                  standing={present(input, null)}
                  onCommit={commit(input, null)}
                />
                <Proposals need={needs.find((n) => n.name === input.name)} onTake={commit(input, null)} />
              </div>
            ))}
        </div>
      )}
      {single.some((i) => i.form === "flag") && (
        <div className="fields flags">
          {single
            .filter((i) => i.form === "flag")
            .map((input) => (
              <Field
                key={input.name}
                edition={edition}
                input={input}
                direction={null}
                value={given(brief, edition.id, input, null)}
                onCommit={commit(input, null)}
              />
            ))}
        </div>
      )}
      {both.length > 0 && (
        <table className="plain by-direction">
          <thead>
            <tr>
              <th />
              {both.map((i) => (
                <th key={i.name} title={i.meaning}>
                  <SymbolText text={i.symbol} />
                  {i.unit && `, ${i.unit}`}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {DIRECTIONS.map((d) => (
              <tr key={d}>
                <td>
                  <b>{d}</b>
                </td>
                {both.map((input) => (
                  <td
                    key={input.name}
                    className={
                      (needed(input, d) ? "needed " : "") +
                      input.form +
                      (input.name === "lateral_system" ? " wide" : "")
                    }
                  >
                    <Field
                      bare
                      edition={edition}
                      input={input}
                      direction={d}
                      value={given(brief, edition.id, input, d)}
                      standing={present(input, d)}
                      onCommit={commit(input, d)}
                    />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {all && inputs.some((i) => i.name === "lateral_system") && (
        <SystemParts edition={edition} brief={brief} change={change} />
      )}
      {onDemand && (hidden > 0 || all) && (
        <Button
          variant="subtle"
          size="compact-sm"
          mt={6}
          onClick={() => {
            setAll(!all);
          }}
        >
          {all ? strings.showOnlyRequiredInputs : strings.moreOptionalInputs(hidden)}
        </Button>
      )}
    </div>
  );
}

/** Classes that a value under another edition suggests; adopted only when the reviewer states it. */
function Proposals({ need, onTake }: { need: Need | undefined; onTake: (value: string) => void }) {
  if (!need?.basis) return null;
  return (
    <p className="proposals">
      <span className="quiet">
        {strings.notUsed}
        <SymbolText text={need.basis} />.{" "}
      </span>
      {need.proposals?.map((p) => (
        <button
          key={p.value}
          type="button"
          className="linklike"
          onClick={() => {
            onTake(p.value);
          }}
        >
          {strings.use(p.value)}
          {p.share < 1 && <span className="quiet"> ({Math.round(100 * p.share)} %)</span>}
        </button>
      ))}
    </p>
  );
}
