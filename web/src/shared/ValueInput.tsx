import { TextInput, type TextInputProps } from "@mantine/core";
import { useState } from "react";
import { typedNumber } from "./typedNumber";
import { strings } from "./strings";
import css from "./ValueInput.module.css";

interface Props extends Omit<TextInputProps, "value" | "onChange"> {
  value: number | null | undefined;
  onCommit: (value: number | null) => void;
  unit?: string;
}

/** A field for a number; what is typed counts when the field is left or Enter is pressed, Escape takes it back. */
export function ValueInput({ value, onCommit, unit, ...rest }: Props) {
  const given = value === null || value === undefined ? "" : String(value);
  const [typed, setTyped] = useState<string | null>(null);
  const bad = typed !== null && typedNumber(typed) === undefined;
  const commit = () => {
    if (typed === null || bad) return;
    const number = typedNumber(typed);
    setTyped(null);
    if (number !== undefined && number !== (value ?? null)) onCommit(number);
  };
  return (
    <TextInput
      inputMode="decimal"
      {...rest}
      value={typed ?? given}
      error={bad ? strings.enterANumber : rest.error}
      rightSection={unit ? <span className={`quiet ${css["small"] ?? ""}`}>{unit}</span> : undefined}
      rightSectionPointerEvents="none"
      onChange={(e) => {
        setTyped(e.currentTarget.value);
      }}
      onBlur={commit}
      onKeyDown={(e) => {
        if (e.key === "Enter") {
          e.preventDefault();
          commit();
        }
        if (e.key === "Escape") setTyped(null);
      }}
    />
  );
}
