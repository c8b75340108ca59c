import { Button, Modal, Select, TextInput } from "@mantine/core";
import { useState } from "react";
import { useReviewContext } from "../ReviewContext";
import { useEditions } from "../../shared/api/queries";
import { unitLabel } from "../../shared/numbers";
import { patchAt, together } from "./assumptions";
import { inputsOf, shownValue, valueOf, type Input } from "./inputs";
import { strings } from "./strings";
import "./whatif.css";

interface Props {
  opened: boolean;
  onClose: () => void;
}

/** Choose an input and what it is otherwise. */
export function WhatIfDialog({ opened, onClose }: Props) {
  const { review, whatIf, assume } = useReviewContext();
  const editions = useEditions();
  const edition = editions.data?.find((e) => e.id === review.brief.edition);
  const inputs = edition ? inputsOf(edition, review.brief) : [];
  const [name, setName] = useState<string | null>(null);
  const [typed, setTyped] = useState("");
  const input = inputs.find((i) => i.name === name);
  const value = input && valueOf(input, typed);
  return (
    <Modal opened={opened} onClose={onClose} title={strings.whatIf} size="md">
      <form
        className="what-if-form"
        onSubmit={(e) => {
          e.preventDefault();
          if (!input || value === undefined) return;
          assume(together(whatIf, patchAt(input.at, value)));
          setTyped("");
          onClose();
        }}
      >
        <Select
          label={strings.input}
          data-autofocus
          searchable
          data={inputs.map((i) => ({ value: i.name, label: i.words }))}
          value={name}
          onChange={(v) => {
            setName(v);
            setTyped("");
          }}
        />
        {input && <Value input={input} typed={typed} onType={setTyped} />}
        <p className="quiet">{strings.nothingIsStored}</p>
        <div className="what-if-acts">
          <Button variant="default" onClick={onClose}>
            {strings.cancel}
          </Button>
          <Button type="submit" color="dark" disabled={value === undefined}>
            {strings.add}
          </Button>
        </div>
      </form>
    </Modal>
  );
}

function Value({ input, typed, onType }: { input: Input; typed: string; onType: (typed: string) => void }) {
  const label = `${strings.value}${input.unit ? `, ${unitLabel(input.unit)}` : ""}`;
  const now = strings.now(shownValue(input.value));
  if (input.form === "number")
    return (
      <TextInput
        label={label}
        description={now}
        inputMode="decimal"
        value={typed}
        onChange={(e) => {
          onType(e.currentTarget.value);
        }}
      />
    );
  const options =
    input.form === "flag"
      ? [
          { value: "yes", label: strings.yes },
          { value: "no", label: strings.no },
        ]
      : input.options;
  return (
    <Select
      label={label}
      description={now}
      data={options}
      value={typed || null}
      onChange={(v) => {
        onType(v ?? "");
      }}
    />
  );
}
