import { Button, Textarea } from "@mantine/core";
import { useState } from "react";
import { pairs } from "./curve";
import { strings } from "./strings";
import css from "./CurvePaste.module.css";

interface Props {
  label: string;
  points: [number, number][];
  placeholder: string;
  onTake: (points: [number, number][]) => void;
  /** What takes the curve out again, where that can be done */
  onLeave?: () => void;
}

/** A curve pasted as two columns; adopted only when the reviewer states it. */
export function CurvePaste({ label, points, placeholder, onTake, onLeave }: Props) {
  const [text, setText] = useState<string | null>(null);
  const read = pairs(text ?? "");
  return (
    <div>
      <Textarea
        label={label}
        autosize
        minRows={3}
        maxRows={9}
        value={text ?? points.map(([t, s]) => `${String(t)}\t${String(s)}`).join("\n")}
        placeholder={placeholder}
        onChange={(e) => {
          setText(e.currentTarget.value);
        }}
        error={text !== null && text !== "" && read.problem}
      />
      {text !== null && text !== "" && (
        <Button
          mt={6}
          size="compact-sm"
          disabled={read.problem !== ""}
          onClick={() => {
            onTake(read.points);
            setText(null);
          }}
        >
          {strings.useThesePoints(read.points.length)}
        </Button>
      )}
      {onLeave && points.length > 0 && (text === null || text === "") && (
        <button
          type="button"
          className={`linklike ${css["small"] ?? ""}`}
          onClick={() => {
            setText(null);
            onLeave();
          }}
        >
          {strings.removeTheCurve}
        </button>
      )}
    </div>
  );
}
