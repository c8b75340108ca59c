import { Button, Select, Textarea, TextInput } from "@mantine/core";
import { useState } from "react";
import type { Across, Load, Story } from "../../shared/api/client";
import { figures, trimmed } from "../../shared/numbers";
import { ValueInput } from "../../shared/ValueInput";
import { KIND_WORDS, KINDS, pastedLoads } from "./loads";

interface Props {
  stories: Story[];
  onChange: (stories: Story[]) => void;
  /** what each edition counts of each load */
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
    <section aria-label="Weight make-up">
      <h3 className="part">Weight make-up</h3>
      {made.length === 0 && (
        <p className="quiet" style={{ fontSize: 13, margin: "0 0 6px" }}>
          Weights are typed above. Give the loads instead and each edition takes its own share of them.
        </p>
      )}
      {made.length > 0 && (
        <table className="plain loads">
          <thead>
            <tr>
              <th>story</th>
              <th>load</th>
              <th>kind</th>
              <th className="n">amount, kN</th>
              <th className="n">intensity, kPa</th>
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
                        label={`Load ${place}`}
                        name={load.name ?? ""}
                        onCommit={(name) => {
                          edit({ name });
                        }}
                      />
                    </td>
                    <td>
                      <Select
                        aria-label={`Kind of load ${place}`}
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
                        aria-label={`Amount of load ${place}`}
                        w={92}
                        value={load.amount}
                        onCommit={(v) => {
                          if (v !== null) edit({ amount: v });
                        }}
                      />
                    </td>
                    <td>
                      <ValueInput
                        aria-label={`Intensity of load ${place}`}
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
                            "open"
                          )}
                        </td>
                      );
                    })}
                    <td>
                      <Button
                        variant="subtle"
                        color="gray"
                        size="compact-sm"
                        aria-label={`Remove load ${place}`}
                        onClick={() => {
                          set(
                            i,
                            (s.loads ?? []).filter((_, j) => j !== k),
                          );
                        }}
                      >
                        remove
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
          Paste loads
        </Button>
      ) : (
        <div style={{ maxWidth: 640, marginTop: 6 }}>
          <Textarea
            label="Story, load, kind, amount (kN), intensity (kPa), area (m²), category of use"
            autosize
            minRows={4}
            value={pasting}
            autoFocus
            placeholder={"L1\tslab and walls\tdead\t3600\nL1\tgoods\tstorage\t4100\t9.6"}
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
          <div style={{ display: "flex", gap: 8, marginTop: 6 }}>
            <Button onClick={take}>Take them in place of the weights</Button>
            <Button
              variant="subtle"
              color="gray"
              onClick={() => {
                setPasting(null);
                setProblems([]);
              }}
            >
              Leave it
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
