import { Button, TextInput } from "@mantine/core";
import { useState } from "react";
import { strings } from "./strings";

/** Form for a value on an image, which only a person can read. */
export function TypeValue({ onTyped }: { onTyped: (text: string) => void }) {
  const [item, setItem] = useState("");
  const [value, setValue] = useState("");
  return (
    <form
      className="type-value"
      onSubmit={(e) => {
        e.preventDefault();
        if (item.trim() && value.trim()) onTyped(`Item\tValue\n${item.trim()}\t${value.trim()}\n`);
      }}
    >
      <p>
        <b>{strings.aValueAtThisPlace}</b> <span className="quiet">{strings.isStoredWithItsPosition}</span>
      </p>
      <TextInput
        label={strings.quantityByItsSymbolOr}
        placeholder="T_a X"
        data-autofocus
        value={item}
        onChange={(e) => {
          setItem(e.currentTarget.value);
        }}
      />
      <TextInput
        label={strings.theValueAsPrintedWith}
        placeholder="0.62 s"
        value={value}
        onChange={(e) => {
          setValue(e.currentTarget.value);
        }}
      />
      <Button type="submit" color="dark" disabled={!item.trim() || !value.trim()}>
        {strings.readIt}
      </Button>
    </form>
  );
}
