import { Button, Select, Textarea } from "@mantine/core";
import { useState } from "react";
import type { Brief, Edition } from "../shared/api/client";
import { ValueInput } from "../shared/ValueInput";
import { pairs } from "./curve";
import { give, given, type Change } from "./places";

const OWN: [string, string, string][] = [
  ["period_coefficient", "coefficient of the period", "needed without analysis"], ["period_exponent", "its exponent", "0.75"], ["period_limit", "limit on the period, × T_a", "no limit"],
  ["mass_factor", "share of the mass", "1"], ["minimum", "least V/W", "0"], ["exponent", "exponent over the height", "1"], ["eccentricity", "accidental eccentricity", "0.05"],
  ["mass_target", "mass target", "0.9"], ["scaling_share", "dynamic over static shear", "1"], ["torsion_limit", "torsion limit", "1.2"], ["torsion_extreme", "extreme torsion", "1.4"],
  ["drift_factor", "drift amplifier", "1"], ["drift_limit", "drift limit", "no limit"], ["theta_limit", "stability limit", "0.1"],
];
const site = (name: string) => ({ name, part: "site" }) as const;

/** The reviewer's own spectrum, pasted as two columns, with their own factors and limits. */
export function OwnSpectrum({ edition, brief, change }: { edition: Edition; brief: Brief; change: Change }) {
  const value = (name: string) => given(brief, edition.id, site(name), null);
  const T = (value("T") as number[] | null | undefined) ?? [];
  const kind = Array.isArray(value("S_d")) ? "S_d" : "S_a";
  const ordinates = (value(kind) as number[] | null | undefined) ?? [];
  const [text, setText] = useState<string | null>(null);
  const read = pairs(text ?? "");
  const own = (value("own") as Record<string, number | null> | null | undefined) ?? {};
  const take = () => {
    change((b) => {
      give(b, edition.id, site("T"), null, read.points.map((p) => p[0]));
      give(b, edition.id, site(kind), null, read.points.map((p) => p[1]));
    });
    setText(null);
  };
  return (
    <div className="curve-paste">
      <div className="fields" style={{ gridTemplateColumns: "minmax(220px, 300px) 150px 150px", marginTop: 8 }}>
        <Textarea label={`Points: period (s) and ${kind === "S_a" ? "acceleration (g)" : "displacement (m)"}`} autosize minRows={3} maxRows={9} value={text ?? T.map((t, i) => `${String(t)}\t${String(ordinates[i] ?? "")}`).join("\n")}
          placeholder={"0\t0.40\n0.2\t1.00\n…"} onChange={(e) => { setText(e.currentTarget.value); }} error={text !== null && read.problem} />
        <Select label="Ordinates are" allowDeselect={false} value={kind} data={[{ value: "S_a", label: "accelerations, g" }, { value: "S_d", label: "displacements, m" }]}
          onChange={(v) => { change((b) => { give(b, edition.id, site(v ?? "S_a"), null, ordinates.length ? ordinates : null); give(b, edition.id, site(v === "S_d" ? "S_a" : "S_d"), null, null); }); }} />
        <Select label="Read between points" allowDeselect={false} value={(value("read") as string | undefined) ?? "linear"} data={[{ value: "linear", label: "linearly" }, { value: "log", label: "logarithmically" }]}
          onChange={(v) => { change((b) => { give(b, edition.id, site("read"), null, v); }); }} />
      </div>
      {text !== null && <Button mt={6} size="compact-sm" disabled={read.problem !== ""} onClick={take}>Take these {read.points.length} points</Button>}
      <div className="fields" style={{ marginTop: 8 }}>
        {OWN.map(([name, label, standing]) => (
          <ValueInput key={name} label={label} placeholder={standing} value={own[name]} onCommit={(v) => { change((b) => { give(b, edition.id, site("own"), null, { ...own, [name]: v }); }); }} />
        ))}
      </div>
    </div>
  );
}
