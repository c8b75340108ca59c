import { Checkbox, Select } from "@mantine/core";
import type { Brief, Edition } from "../shared/api/client";
import { SymbolText } from "../shared/Symbol";
import { give, given, type Change } from "./places";

const FLOOR_ON_MODES =
  "the floor of 6.4.2 on A_h for T up to 0.1 s is put on every mode, " + "not only on the structure's period";

const site = (name: string) => ({ name, part: "site" }) as const;

/** Corrections to a code that build up on each other: which of them hold. */
const BUILDING_UP = {
  supplements: { label: "Supplements that hold", standing: [1, 3], sets: [[1, 3], [1], []] },
  amendments: { label: "Amendments that hold", standing: [], sets: [[], [1], [1, 2]] },
} as const;

const setWords = (numbers: readonly number[]) => (numbers.length ? numbers.join(" and ") : "none");

/** What the brief declares of an edition beside its values: corrections that hold, permissions that are taken. */
export function Choices({ edition, brief, change }: { edition: Edition; brief: Brief; change: Change }) {
  const value = (name: string) => given(brief, edition.id, site(name), null);
  const set = (name: string, to: unknown) => {
    change((b) => {
      give(b, edition.id, site(name), null, to);
    });
  };
  return (
    <div className="choices">
      {(["supplements", "amendments"] as const)
        .filter((name) => edition.choices.includes(name))
        .map((name) => {
          const { label, standing, sets } = BUILDING_UP[name];
          const held = (value(name) as number[] | null | undefined) ?? standing;
          return (
            <Select
              key={name}
              label={label}
              w={200}
              allowDeselect={false}
              value={held.join(" ")}
              data={sets.map((numbers) => ({ value: numbers.join(" "), label: setWords(numbers) }))}
              onChange={(v) => {
                set(name, (v ?? "").split(" ").filter(Boolean).map(Number));
              }}
            />
          );
        })}
      {edition.choices.includes("floor_on_modes") && (
        <Checkbox
          mt={8}
          label={<SymbolText text={FLOOR_ON_MODES} />}
          checked={value("floor_on_modes") === true}
          onChange={(e) => {
            set("floor_on_modes", e.currentTarget.checked);
          }}
        />
      )}
      {edition.permissions.length > 0 && (
        <fieldset className="permissions">
          <legend>Permissions that lower a force, none taken unless ticked</legend>
          {edition.permissions.map((p) => (
            <Checkbox
              key={p.name}
              label={<SymbolText text={p.words} />}
              checked={value(p.name) === true}
              onChange={(e) => {
                set(p.name, e.currentTarget.checked);
              }}
            />
          ))}
        </fieldset>
      )}
    </div>
  );
}
