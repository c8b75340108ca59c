import { Button, TextInput } from "@mantine/core";
import { useHotkeys } from "@mantine/hooks";
import { useState, type ReactNode } from "react";
import { asked, openParts, placeOf, type Choice, type Question } from "./reading";
import { strings } from "./strings";
import css from "./Questions.module.css";

const SHOWN = 8;
/** answers that are shown at once; the rest are a matter of pointing at the column */
const OFFERED = 6;

interface Props {
  problems: readonly Question[];
  /** the case of all rows, where it can be named */
  onCase: (name: string) => void;
  onAnswer: (choice: Choice) => void;
  onShow: (row: number) => void;
  /** the cells that a question is about */
  cells?: (question: Question, rows: readonly number[]) => ReactNode;
}

/** What is open of a table, one question after the other, each with its answers: by mouse, or by its number. */
export function Questions({ problems, onCase, onAnswer, onShow, cells }: Props) {
  const [at, setAt] = useState(0);
  const [name, setName] = useState("");
  const all = asked(problems);
  const blocking = problems.filter((p) => p.holds_up).length;
  const parts = openParts(problems);
  const left = strings.stayOpen(parts.rows, parts.columns);
  const now = all[Math.min(at, all.length - 1)];
  const move = (by: number) => {
    const next = (at + by + all.length) % Math.max(1, all.length);
    setAt(next);
    const row = all[next]?.question.row;
    if (row !== null && row !== undefined) onShow(row);
  };
  const choose = (i: number) => {
    const choice = now?.question.choices[i];
    if (choice) onAnswer(choice);
  };
  useHotkeys([
    [
      "n",
      () => {
        move(1);
      },
    ],
    [
      "shift+n",
      () => {
        move(-1);
      },
    ],
    ...Array.from({ length: OFFERED }, (_, i): [string, () => void] => [
      String(i + 1),
      () => {
        choose(i);
      },
    ]),
  ]);
  if (all.length === 0 || !now) return null;
  return (
    <div className="problem questions" role="alert">
      <p className={css["strong"]}>
        {blocking > 0 ? strings.inTheWay(blocking) : left ? strings.staysOpen(left) : strings.toLookAt(problems.length)}
        <span className="quiet keys">
          {all.length > 1 && (
            <>
              <span className="key">n</span>
              {strings.nextQuestion}
            </>
          )}
          {now.question.choices.length > 0 && (
            <>
              {" "}
              <span className="key">1</span>
              {strings.firstAnswer}
            </>
          )}
        </span>
      </p>
      <ol>
        {all.slice(0, SHOWN).map(({ question, rows }, i) => (
          <li
            key={question.message + String(question.row)}
            className={i === at ? "now" : ""}
            onClick={() => {
              setAt(i);
              if (question.row !== null) onShow(question.row);
            }}
          >
            <span>
              {question.row !== null && `${placeOf(question, rows)}: `}
              {question.row === null ? sentence(question.message) : question.message}.{" "}
              <span className="quiet">{question.remedy}</span>
            </span>
            {i === at && cells?.(question, rows)}
            {i === at && question.choices.length > 0 && (
              <span className="choices">
                {question.choices.slice(0, OFFERED).map((choice, k) => (
                  <Button
                    key={choice.label}
                    size="compact-sm"
                    variant={k === 0 ? "filled" : "default"}
                    color="dark"
                    onClick={(e) => {
                      e.stopPropagation();
                      onAnswer(choice);
                    }}
                  >
                    {choice.label}
                  </Button>
                ))}
              </span>
            )}
            {i === at && question.message === "the load case of these rows is not stated" && (
              <form
                className="choices"
                onSubmit={(e) => {
                  e.preventDefault();
                  if (name.trim()) onCase(name.trim());
                }}
              >
                <TextInput
                  aria-label={strings.nameOfTheCase}
                  placeholder={strings.staticX}
                  size="xs"
                  w={180}
                  value={name}
                  onChange={(e) => {
                    setName(e.currentTarget.value);
                  }}
                />
                <Button type="submit" size="compact-sm" variant="default" disabled={!name.trim()}>
                  {strings.allRowsBelongToIt}
                </Button>
              </form>
            )}
          </li>
        ))}
      </ol>
      {all.length > SHOWN && (
        <p className="quiet">
          {strings.and}
          {all.length - SHOWN}
          {strings.moreMarkedInTheirCells}
        </p>
      )}
    </div>
  );
}

const sentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
