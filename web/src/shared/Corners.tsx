import { TextInput } from "@mantine/core";
import { useState } from "react";
import { cornersText, readCorners } from "./outline";
import { strings } from "./strings";

interface Props {
  label: string;
  /** the label stands as a heading elsewhere */
  bare?: boolean;
  corners: readonly (readonly number[])[];
  /** those that hold while none are given: of the plan in the brief */
  known: readonly (readonly number[])[];
  onCommit: (corners: [number, number][] | null) => void;
}

/** The outline of a floor that is no rectangle; its edges are where drifts and torsion are read. */
export function Corners({ label, bare, corners, known, onCommit }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const bad = typed !== null && typed.trim() !== "" && readCorners(typed) === null;
  const commit = () => {
    if (typed === null || bad) return;
    setTyped(null);
    if (typed.trim() !== cornersText(corners)) onCommit(typed.trim() === "" ? null : readCorners(typed));
  };
  return (
    <TextInput
      {...(bare ? { "aria-label": label, w: 300 } : { label, mt: 8 })}
      placeholder={known.length ? strings.fromThePlan(cornersText(known)) : "x, y; x, y; x, y"}
      value={typed ?? cornersText(corners)}
      error={bad ? strings.enterXYOfThree : undefined}
      onPaste={(e) => {
        e.stopPropagation();
      }}
      onChange={(e) => {
        setTyped(e.currentTarget.value);
      }}
      onBlur={commit}
      onKeyDown={(e) => {
        if (e.key === "Enter") commit();
        if (e.key === "Escape") setTyped(null);
      }}
    />
  );
}
