import { Checkbox, Select } from "@mantine/core";
import type { Edition, EditionInput } from "../shared/api/client";
import { figures } from "../shared/numbers";
import { SymbolText } from "../shared/Symbol";
import { ValueInput } from "../shared/ValueInput";

const WORDS: Record<string, string> = {
  steel_mrf: "steel moment frame",
  rc_mrf: "concrete moment frame",
  composite_mrf: "composite moment frame",
  rc_walls: "concrete structural walls",
  steel_ebf: "steel eccentrically braced frame",
  steel_brbf: "steel buckling-restrained braced frame",
  other: "all other systems",
  important: "important service or community",
  over_200_persons: "more than 200 persons",
  low_rise_detailed: "low rise, partitions made for drift",
  masonry_cantilever: "masonry cantilever walls",
  masonry_other: "other masonry walls",
  brittle: "brittle elements attached",
  ductile: "ductile elements",
  none: "none that interfere",
};

/** Options whose words differ by what they are options of. */
const BY_INPUT: Record<string, Record<string, string>> = {
  use: { other: "all other" },
  structure_type: { other: "all other structures" },
  site_class: {
    A: "A hard rock",
    B: "B rock",
    BC: "BC soft rock",
    C: "C very dense soil",
    CD: "CD dense soil",
    D: "D stiff soil",
    DE: "DE loose soil",
    E: "E soft clay",
    F: "F site response",
  },
  T_a_formula: {
    "12.8-7": "12.8-7 general",
    "12.8-8": "12.8-8",
    "12.8-9": "12.8-9",
    "30-8": "30-8 general",
    "30-9": "30-9 walls",
    "4.6": "4.6 general",
    "4.7": "4.7 walls",
    "4.9": "4.9 displacement",
  },
};

const worded = (input: EditionInput, option: string) => BY_INPUT[input.name]?.[option] ?? WORDS[option] ?? option;

interface Props {
  edition: Edition;
  input: EditionInput;
  direction: "X" | "Y" | null;
  value: unknown;
  /** a label beside the field, or only for those who can't see it */
  bare?: boolean;
  /** what holds where nothing is given */
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
  const placeholder = standing ?? (input.computed ? "by code" : "not given");
  if (input.name === "lateral_system") {
    return (
      <Select
        {...label}
        searchable
        clearable
        placeholder={placeholder}
        nothingFoundMessage="no such system"
        value={typeof value === "string" ? value : null}
        comboboxProps={{ width: 430, position: "bottom-start" }}
        data={edition.systems.map((s) => ({ value: s.id, label: s.title.charAt(0).toUpperCase() + s.title.slice(1) }))}
        renderOption={({ option }) => {
          const factors = edition.systems.find((s) => s.id === option.value)?.factors ?? {};
          return (
            <span style={{ display: "flex", gap: 10, width: "100%" }}>
              <span style={{ flex: 1 }}>{option.label}</span>
              <span className="quiet" style={{ whiteSpace: "nowrap" }}>
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
        value={value === null || value === undefined ? null : String(value as string | number)}
        data={input.options.map((o) => ({ value: String(o), label: worded(input, String(o)) }))}
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
        data={["yes", "no"]}
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
