import { Checkbox, Select } from "@mantine/core";
import type { Brief, Edition } from "../shared/api/client";
import { SymbolText } from "../shared/Symbol";
import { give, given, type Change } from "./places";
import { strings } from "./strings";

const site = (name: string) => ({ name, part: "site" }) as const;

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
      {edition.choices.map(({ name, words, sets, standing }) =>
        sets.length > 0 ? (
          <Select
            key={name}
            label={words}
            w={200}
            allowDeselect={false}
            value={((value(name) as number[] | null | undefined) ?? standing).join(" ")}
            data={sets.map((numbers) => ({ value: numbers.join(" "), label: setWords(numbers) }))}
            onChange={(v) => {
              set(name, (v ?? "").split(" ").filter(Boolean).map(Number));
            }}
          />
        ) : (
          <Checkbox
            key={name}
            mt={8}
            label={<SymbolText text={words} />}
            checked={value(name) === true}
            onChange={(e) => {
              set(name, e.currentTarget.checked);
            }}
          />
        ),
      )}
      {edition.permissions.length > 0 && (
        <fieldset className="permissions">
          <legend>{strings.permissionsThatLowerAForce}</legend>
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
