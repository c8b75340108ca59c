import { Button, Select, TextInput } from "@mantine/core";
import { useState } from "react";
import { Link } from "react-router";
import type { ModelFloor } from "../../model/answers";
import type { LateralLine, ReferenceModel, Story } from "../../shared/api/client";
import { Corners } from "../../shared/Corners";
import { ValueInput } from "../../shared/ValueInput";
import { LinesPlan } from "./LinesPlan";
import { copiedToAll, linesOf, pastedLines } from "./lines";
import { strings } from "./strings";
import css from "./LinesEditor.module.css";

interface Props {
  stories: Story[];
  model: ReferenceModel;
  floors: ModelFloor[];
  change: (edit: (model: ReferenceModel) => void) => void;
}

/** Lateral lines of a story on a plan and as a table; both edit the same. */
export function LinesEditor({ stories, model, floors, change }: Props) {
  const [at, setAt] = useState(0);
  const [chosen, setChosen] = useState<number | null>(null);
  const [problems, setProblems] = useState<string[]>([]);
  const story = Math.min(at, Math.max(0, stories.length - 1));
  const lines = model.lateral_lines ?? [];
  const storyLines = linesOf(lines, story);
  const name = stories[story]?.name ?? "";
  const floor = model.floors?.find((f) => f.name === name);
  if (stories.length === 0) {
    return (
      <div className="empty">
        <p>{strings.lateralLinesNeedTheStories}</p>
        <Button component={Link} to="../brief">
          {strings.toTheBrief}
        </Button>
      </div>
    );
  }
  const edit = (index: number, to: Partial<LateralLine>) => {
    change((m) => {
      m.lateral_lines = lines.map((l, i) => (i === index ? { ...l, ...to } : l));
    });
  };
  const editFloor = (to: Record<string, unknown>) => {
    change((m) => {
      const others = (m.floors ?? []).filter((f) => f.name !== name);
      m.floors = [...others, { ...floor, name, ...to }];
    });
  };
  const add = (line: Partial<LateralLine>) => {
    change((m) => {
      m.lateral_lines = [...lines, { story, at: [0, 0], angle: 0, stiffness: 100_000, name: "", ...line }];
    });
    setChosen(lines.length);
  };
  const centre = floor?.centre ?? floors[story]?.centre;
  return (
    <div
      className="lines"
      onPaste={(e) => {
        const text = e.clipboardData.getData("text/plain");
        if (!/[\t;]/.test(text)) return;
        e.preventDefault();
        const read = pastedLines(
          text,
          stories.map((s) => s.name),
        );
        setProblems(read.problems);
        if (read.problems.length === 0 && read.lines.length > 0)
          change((m) => {
            m.lateral_lines = read.lines;
          });
      }}
    >
      <LinesPlan
        floor={floors[story]}
        plan={stories[story]?.plan ?? null}
        lines={storyLines}
        chosen={chosen}
        onChoose={setChosen}
        onMove={(index, to) => {
          edit(index, { at: to });
        }}
      />
      <section>
        <div className={css["wrapRow"]}>
          <Select
            label={strings.story}
            w={110}
            allowDeselect={false}
            value={String(story)}
            data={stories.map((s, i) => ({ value: String(i), label: s.name })).reverse()}
            onChange={(v) => {
              setAt(Number(v));
              setChosen(null);
            }}
          />
          <ValueInput
            label={strings.mass}
            w={110}
            unit="t"
            placeholder={floors[story] ? floors[story].mass.toFixed(1) : ""}
            title={strings.emptyTheWeightOfThe}
            value={floor?.mass}
            onCommit={(v) => {
              editFloor({ mass: v });
            }}
          />
          <ValueInput
            label={strings.centreOfMassX}
            w={120}
            unit="m"
            placeholder={strings.middleOfThePlan}
            value={centre?.[0]}
            onCommit={(v) => {
              editFloor({ centre: v === null ? null : [v, centre?.[1] ?? 0] });
            }}
          />
          <ValueInput
            label="y"
            w={120}
            unit="m"
            placeholder={strings.middleOfThePlan}
            value={centre?.[1]}
            onCommit={(v) => {
              editFloor({ centre: v === null ? null : [centre?.[0] ?? 0, v] });
            }}
          />
          <ValueInput
            label={strings.rotationalInertia}
            w={140}
            unit="t m²"
            placeholder={floors[story] ? strings.fromPlan(floors[story].inertia.toFixed(0)) : strings.fromThePlan}
            value={floor?.inertia}
            onCommit={(v) => {
              editFloor({ inertia: v });
            }}
          />
        </div>
        <Corners
          key={name}
          label={strings.cornersOfTheFloorM}
          corners={floor?.corners ?? []}
          known={floors[story]?.corners ?? []}
          onCommit={(corners) => {
            editFloor({ corners });
          }}
        />
        {problems.length > 0 && (
          <div className="problem" role="alert">
            <p className={css["strong"]}>{strings.notPastedTheLinesAre}</p>
            {problems.map((p) => (
              <p key={p}>{p}</p>
            ))}
          </div>
        )}
        {storyLines.length === 0 ? (
          <p className="quiet">{strings.noLinesInYetAdd(name)}</p>
        ) : (
          <table className="plain lines-table" aria-label={strings.lateralLinesOf(name)}>
            <thead>
              <tr>
                <th>{strings.line}</th>
                <th>x, m</th>
                <th>y, m</th>
                <th>{strings.angle}</th>
                <th>{strings.stiffnessKnM}</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {storyLines.map(({ line, index }, k) => {
                const called = line.name ? line.name : strings.lineNumbered(k + 1);
                return (
                  <tr
                    key={index}
                    className={index === chosen ? "on" : ""}
                    onFocus={() => {
                      setChosen(index);
                    }}
                  >
                    <td>
                      <TextInput
                        aria-label={strings.nameOf(called)}
                        w={130}
                        maxLength={60}
                        defaultValue={line.name ?? ""}
                        placeholder={called}
                        onBlur={(e) => {
                          const to = e.currentTarget.value.trim();
                          if (to !== (line.name ?? "")) edit(index, { name: to });
                        }}
                      />
                    </td>
                    <td>
                      <ValueInput
                        aria-label={strings.xOf(called)}
                        w={80}
                        value={line.at[0]}
                        onCommit={(v) => {
                          if (v !== null) edit(index, { at: [v, line.at[1] ?? 0] });
                        }}
                      />
                    </td>
                    <td>
                      <ValueInput
                        aria-label={strings.yOf(called)}
                        w={80}
                        value={line.at[1]}
                        onCommit={(v) => {
                          if (v !== null) edit(index, { at: [line.at[0] ?? 0, v] });
                        }}
                      />
                    </td>
                    <td>
                      <ValueInput
                        aria-label={strings.angleOf(called)}
                        w={70}
                        value={line.angle ?? 0}
                        onCommit={(v) => {
                          edit(index, { angle: v ?? 0 });
                        }}
                      />
                    </td>
                    <td>
                      <ValueInput
                        aria-label={strings.stiffnessOf(called)}
                        w={120}
                        value={line.stiffness}
                        onCommit={(v) => {
                          if (v !== null) edit(index, { stiffness: v });
                        }}
                      />
                    </td>
                    <td>
                      <Button
                        variant="subtle"
                        color="gray"
                        aria-label={strings.removeNamed(called)}
                        onClick={() => {
                          change((m) => {
                            m.lateral_lines = lines.filter((_, i) => i !== index);
                          });
                          setChosen(null);
                        }}
                      >
                        {strings.remove}
                      </Button>
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        )}
        <div className={css["wrapRow2"]}>
          <Button
            variant="default"
            onClick={() => {
              add({ at: centre ?? [0, 0], angle: 0 });
            }}
          >
            {strings.addALineAlongX}
          </Button>
          <Button
            variant="default"
            onClick={() => {
              add({ at: centre ?? [0, 0], angle: 90 });
            }}
          >
            {strings.addALineAlongY}
          </Button>
          <Button
            variant="default"
            disabled={storyLines.length === 0 || stories.length < 2}
            onClick={() => {
              change((m) => {
                m.lateral_lines = copiedToAll(lines, story, stories.length);
              });
            }}
          >
            {strings.copyToAllStories}
          </Button>
          <TextInput
            aria-label={strings.pasteLateralLinesHere}
            placeholder={strings.pasteCellsHereStoryX}
            w={330}
            value=""
            onChange={() => undefined}
          />
        </div>
      </section>
    </div>
  );
}
