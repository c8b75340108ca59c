import { Button, Select, Textarea, TextInput } from "@mantine/core";
import { useState } from "react";
import type { Across, Load, Story } from "../../shared/api/client";
import { figures, trimmed } from "../../shared/numbers";
import { ValueInput } from "../../shared/ValueInput";
import { KIND_WORDS, KINDS, pastedLoads } from "./loads";
import { strings } from "./strings";
import css from "./LoadsEditor.module.css";

interface Props {
  stories: Story[];
  onChange: (stories: Story[]) => void;
  /** What each edition counts of each load */
  weights: Across["weights"] | undefined;
  editions: { id: string; title: string }[];
}

/** What the seismic weight is made of: loads by story, and the share of each under every edition. */
export function LoadsEditor({ stories, onChange, weights, editions }: Props) {
  const [pasting, setPasting] = useState<string | null>(null);
  const [problems, setProblems] = useState<string[]>([]);
  const set = (i: number, loads: Load[]) => {
    onChange(
      stories.map((s, j) =>
        j === i ? { ...s, loads: loads.length ? loads : null, weight: loads.length ? null : (s.weight ?? null) } : s,
      ),
    );
  };
  const take = () => {
    const read = pastedLoads(pasting ?? "", stories);
    setProblems(read.problems);
    if (read.problems.length === 0) {
      onChange(read.stories);
      setPasting(null);
    }
  };
  const made = stories
    .map((s, i) => ({ s, i }))
    .filter(({ s }) => s.loads?.length && !s.weight)
    .reverse();
  if (stories.length === 0) return null;
  return (
    <section aria-label={strings.weightMakeUp}>
      <h3 className="part">{strings.weightMakeUp}</h3>
      {made.length === 0 && <p className={`quiet ${css["smallLine"] ?? ""}`}>{strings.weightsAreEnteredAboveEnter}</p>}
      {made.length > 0 && (
        <table className="plain loads">
          <thead>
            <tr>
              <th>{strings.story}</th>
              <th>{strings.load}</th>
              <th>{strings.kindColumn}</th>
              <th className="n">{strings.amountKn}</th>
              <th className="n">{strings.intensityKpa}</th>
              {editions.map((e) => (
                <th key={e.id} className="n">
                  {e.title}
                </th>
              ))}
              <th />
            </tr>
          </thead>
          <tbody>
            {made.map(({ s, i }) =>
              (s.loads ?? []).map((load, k) => {
                const edit = (change: Partial<Load>) => {
                  set(
                    i,
                    (s.loads ?? []).map((l, j) => (j === k ? { ...l, ...change } : l)),
                  );
                };
                const place = `${s.name} ${String(k + 1)}`;
                return (
                  <tr key={place}>
                    <td>{k === 0 ? s.name : ""}</td>
                    <td>
                      <LoadName
                        label={strings.loadAt(place)}
                        name={load.name ?? ""}
                        onCommit={(name) => {
                          edit({ name });
                        }}
                      />
                    </td>
                    <td>
                      <Select
                        aria-label={strings.kindOfLoad(place)}
                        w={120}
                        allowDeselect={false}
                        value={load.kind}
                        data={KINDS.map((value) => ({ value, label: KIND_WORDS[value] }))}
                        onChange={(v) => {
                          if (v) edit({ kind: v });
                        }}
                      />
                    </td>
                    <td>
                      <ValueInput
                        aria-label={strings.amountOfLoad(place)}
                        w={92}
                        value={load.amount}
                        onCommit={(v) => {
                          if (v !== null) edit({ amount: v });
                        }}
                      />
                    </td>
                    <td>
                      <ValueInput
                        aria-label={strings.intensityOfLoad(place)}
                        w={82}
                        placeholder="–"
                        value={load.intensity}
                        onCommit={(v) => {
                          edit({ intensity: v });
                        }}
                      />
                    </td>
                    {editions.map((e) => {
                      const counted = weights?.[e.id]?.loads?.[i]?.[k];
                      return (
                        <td key={e.id} className="n" title={counted?.why}>
                          {counted ? (
                            <>
                              {figures(counted.counted)}{" "}
                              {counted.share !== null && <span className="quiet">× {trimmed(counted.share)}</span>}
                            </>
                          ) : (
                            strings.missingInput
                          )}
                        </td>
                      );
                    })}
                    <td>
                      <Button
                        variant="subtle"
                        color="gray"
                        size="compact-sm"
                        aria-label={strings.removeLoad(place)}
                        onClick={() => {
                          set(
                            i,
                            (s.loads ?? []).filter((_, j) => j !== k),
                          );
                        }}
                      >
                        {strings.remove}
                      </Button>
                    </td>
                  </tr>
                );
              }),
            )}
          </tbody>
        </table>
      )}
      {pasting === null ? (
        <Button
          variant="default"
          mt={6}
          onClick={() => {
            setPasting("");
          }}
        >
          {strings.pasteLoads}
        </Button>
      ) : (
        <div className={css["width"]}>
          <Textarea
            label={strings.storyLoadKindAmountKn}
            autosize
            minRows={4}
            value={pasting}
            autoFocus
            placeholder={strings.l1SlabAndWallsDead}
            onChange={(e) => {
              setPasting(e.currentTarget.value);
            }}
          />
          {problems.length > 0 && (
            <div className="problem" role="alert">
              {problems.map((p) => (
                <p key={p}>{p}</p>
              ))}
            </div>
          )}
          <div className={css["row"]}>
            <Button onClick={take}>{strings.useThemInsteadOfThe}</Button>
            <Button
              variant="subtle"
              color="gray"
              onClick={() => {
                setPasting(null);
                setProblems([]);
              }}
            >
              {strings.cancel}
            </Button>
          </div>
        </div>
      )}
    </section>
  );
}

function LoadName({ name, label, onCommit }: { name: string; label: string; onCommit: (name: string) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const commit = () => {
    if (typed !== null && typed !== name) onCommit(typed);
    setTyped(null);
  };
  return (
    <TextInput
      aria-label={label}
      w={170}
      maxLength={60}
      value={typed ?? name}
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
