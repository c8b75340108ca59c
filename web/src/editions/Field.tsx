import { Checkbox, Select } from "@mantine/core";
import type { Edition, EditionInput } from "../shared/api/client";
import { figures } from "../shared/numbers";
import { SymbolText } from "../shared/Symbol";
import { ValueInput } from "../shared/ValueInput";
import { strings } from "./strings";
import css from "./Field.module.css";

interface Props {
  edition: Edition;
  input: EditionInput;
  direction: "X" | "Y" | null;
  value: unknown;
  /** a label besides the field, or only for those who cannot see it */
  bare?: boolean;
  /** What holds where nothing is given */
  standing?: string;
  onCommit: (value: number | string | boolean | null) => void;
}

/** One input of an edition: a number, a choice of its tables, a declaration. */
export function Field({ edition, input, direction, value, bare, standing, onCommit }: Props) {
  const name = `${input.symbol}${direction ? ` ${direction}` : ""}`;
  const shown =
    input.symbol === input.meaning.toLowerCase() || input.symbol.length > 12
      ? input.meaning
      : `${input.symbol} ${input.meaning.charAt(0).toLowerCase()}${input.meaning.slice(1)}`;
  const label = bare ? { "aria-label": name } : { label: <SymbolText text={shown} />, "aria-label": name };
  const placeholder = standing ?? (input.computed ? strings.byCode : strings.notEntered);
  if (input.name === "lateral_system") {
    return (
      <Select
        {...label}
        searchable
        clearable
        placeholder={placeholder}
        nothingFoundMessage={strings.noSuchSystem}
        value={typeof value === "string" ? value : null}
        comboboxProps={{ width: 430, position: "bottom-start" }}
        data={edition.systems.map((s) => ({ value: s.id, label: s.title.charAt(0).toUpperCase() + s.title.slice(1) }))}
        renderOption={({ option }) => {
          const factors = edition.systems.find((s) => s.id === option.value)?.factors ?? {};
          return (
            <span className={css["row"]}>
              <span className={css["fill"]}>{option.label}</span>
              <span className={`quiet ${css["oneLine"] ?? ""}`}>
                {Object.values(factors)
                  .map((f) => figures(f, 3))
                  .join(" / ")}
              </span>
            </span>
          );
        }}
        onChange={onCommit}
      />
    );
  }
  if (input.form === "choice") {
    const numeric = typeof input.options[0] === "number";
    return (
      <Select
        {...label}
        clearable={input.name !== "T_a_formula"}
        placeholder={placeholder}
        value={typeof value === "string" || typeof value === "number" ? String(value) : null}
        data={input.options.map((o, i) => ({ value: String(o), label: input.option_words[i] ?? String(o) }))}
        comboboxProps={{ width: "max-content", position: "bottom-start" }}
        onChange={(v) => {
          onCommit(v === null ? null : numeric ? Number(v) : v);
        }}
      />
    );
  }
  if (input.form === "yes_no") {
    return (
      <Select
        {...label}
        clearable
        placeholder={placeholder}
        value={value === true ? "yes" : value === false ? "no" : null}
        data={[
          { value: "yes", label: strings.yes },
          { value: "no", label: strings.no },
        ]}
        onChange={(v) => {
          onCommit(v === null ? null : v === "yes");
        }}
      />
    );
  }
  if (input.form === "flag") {
    return (
      <Checkbox
        label={<SymbolText text={input.meaning.charAt(0).toLowerCase() + input.meaning.slice(1)} />}
        checked={value === true}
        onChange={(e) => {
          onCommit(e.currentTarget.checked);
        }}
      />
    );
  }
  return (
    <ValueInput
      {...label}
      unit={input.unit}
      placeholder={placeholder}
      value={typeof value === "number" ? value : null}
      onCommit={onCommit}
    />
  );
}
