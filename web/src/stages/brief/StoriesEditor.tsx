import { Button, TextInput } from "@mantine/core";
import { useState } from "react";
import type { Story } from "../../shared/api/client";
import { figures } from "../../shared/numbers";
import { ValueInput } from "../../shared/ValueInput";
import { pastedStories } from "./stories";
import { strings } from "./strings";
import css from "./StoriesEditor.module.css";

interface Props {
  stories: Story[];
  onChange: (stories: Story[]) => void;
  /** weights that follow from the loads of the stories, kN */
  fromLoads?: number[] | null | undefined;
}

/** The reviewer's own stories, the top one first as the building stands; cells of a spreadsheet can be pasted. */
export function StoriesEditor({ stories, onChange, fromLoads }: Props) {
  const [problems, setProblems] = useState<string[]>([]);
  const set = (i: number, edit: Partial<Story>) => {
    onChange(stories.map((s, j) => (j === i ? { ...s, ...edit } : s)));
  };
  const top = stories.at(-1);
  const add = () => {
    const number = Number(/(\d+)$/.exec(top?.name ?? "")?.[1] ?? stories.length) + 1;
    onChange([...stories, { ...(top ?? { height: 3.6 }), name: `L${String(number)}` }]);
  };
  const total = stories.reduce((sum, s, i) => sum + (s.weight ?? (s.loads?.length ? (fromLoads?.[i] ?? 0) : 0)), 0);
  return (
    <section
      onPaste={(e) => {
        const text = e.clipboardData.getData("text/plain");
        if (!/[\t;]/.test(text)) return;
        e.preventDefault();
        const read = pastedStories(text);
        setProblems(read.problems);
        if (read.problems.length === 0 && read.stories.length > 0) onChange(read.stories);
      }}
    >
      <h3 className="part">{strings.stories}</h3>
      {stories.length === 0 && <p className="quiet">{strings.noStoriesYetAddThem}</p>}
      {problems.length > 0 && (
        <div className="problem" role="alert">
          <p className={css["strong"]}>{strings.notPastedTheStoriesAre}</p>
          {problems.map((p) => (
            <p key={p}>{p}</p>
          ))}
        </div>
      )}
      <table className={`plain ${css["width"] ?? ""}`}>
        <thead>
          <tr>
            <th>{strings.story}</th>
            <th className="n">{strings.heightM}</th>
            <th className="n">{strings.seismicWeightKn}</th>
            <th className="n">{strings.levelM}</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {stories
            .map((s, i) => ({ s, i }))
            .reverse()
            .map(({ s, i }) => (
              <tr key={i}>
                <td>
                  <Name
                    name={s.name}
                    taken={stories.map((o) => o.name)}
                    onCommit={(name) => {
                      set(i, { name });
                    }}
                  />
                </td>
                <td>
                  <ValueInput
                    aria-label={strings.heightOf(s.name)}
                    w={90}
                    value={s.height}
                    onCommit={(v) => {
                      if (v !== null) set(i, { height: v });
                    }}
                  />
                </td>
                <td>
                  <ValueInput
                    aria-label={strings.weightOf(s.name)}
                    w={140}
                    value={s.weight}
                    placeholder={
                      s.loads?.length && fromLoads?.[i] ? strings.fromLoads(figures(fromLoads[i])) : strings.notEntered
                    }
                    onCommit={(v) => {
                      set(i, { weight: v });
                    }}
                  />
                </td>
                <td className="n quiet">
                  {stories
                    .slice(0, i + 1)
                    .reduce((sum, o) => sum + o.height, 0)
                    .toFixed(2)}
                </td>
                <td>
                  <Button
                    variant="subtle"
                    color="gray"
                    aria-label={strings.removeNamed(s.name)}
                    onClick={() => {
                      onChange(stories.filter((_, j) => j !== i));
                    }}
                  >
                    {strings.remove}
                  </Button>
                </td>
              </tr>
            ))}
        </tbody>
        {stories.length > 0 && (
          <tfoot>
            <tr>
              <td className="quiet">{strings.sum}</td>
              <td className="n">{stories.reduce((sum, s) => sum + s.height, 0).toFixed(2)}</td>
              <td className="n">{figures(total, 6)}</td>
              <td />
              <td />
            </tr>
          </tfoot>
        )}
      </table>
      <div className={css["row"]}>
        <Button variant="default" onClick={add}>
          {strings.addAStoryOnTop}
        </Button>
        <TextInput
          aria-label={strings.pasteStoriesHere}
          placeholder={strings.pasteCellsHereNameHeight}
          w={280}
          value=""
          onChange={() => undefined}
        />
      </div>
    </section>
  );
}

function Name({ name, taken, onCommit }: { name: string; taken: string[]; onCommit: (name: string) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed?.trim() ?? name;
  const bad = typed !== null && (text === "" || (text !== name && taken.includes(text)));
  const commit = () => {
    if (typed === null || bad) return;
    setTyped(null);
    if (text !== name) onCommit(text);
  };
  return (
    <TextInput
      aria-label={strings.nameOf(name)}
      w={130}
      maxLength={60}
      value={typed ?? name}
      error={bad ? (text === "" ? strings.enterAName : strings.thisNameIsAlreadyUsed) : undefined}
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
