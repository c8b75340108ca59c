import { Button, Checkbox, Select } from "@mantine/core";
import { Link } from "react-router";
import { useReviewContext } from "../../review/useReviewContext";
import type { DirectionSystem, Edition } from "../../shared/api/client";
import { useEditions } from "../../shared/api/queries";
import { Troubles } from "../../shared/Troubles";
import { useBrief } from "../../shared/useBrief";
import { ValueInput } from "../../shared/ValueInput";
import { StoriesEditor } from "./StoriesEditor";
import { ThisReview } from "./ThisReview";
import { Walls } from "./Walls";

const PERIOD_TYPES: Record<string, string> = {
  steel_mrf: "steel moment frame", rc_mrf: "concrete moment frame", steel_ebf: "steel eccentrically braced frame",
  steel_brbf: "steel buckling-restrained braced frame", other: "all other systems",
};

/** What building, which code, which system each way: the reviewer's own side. */
export default function BriefPage() {
  const { review } = useReviewContext();
  const editions = useEditions();
  const { brief, change, error, undo, canUndo, busy } = useBrief();
  const edition = editions.data?.find((e: Edition) => e.id === brief.edition);
  return (
    <main className="page" style={{ maxWidth: 1180 }}>
      <div className="stage-head">
        <h2 className="stage-title">Brief</h2>
        <span className="quiet">what the reviewer knows, none of it from the submission</span>
        <span className="end">
          <span className="quiet" aria-live="polite">{busy ? "saving…" : "saved"}</span>
          <Button variant="default" disabled={!canUndo} onClick={undo}>Undo</Button>
        </span>
      </div>
      <Troubles error={error} title="Not saved; the brief is as it was" />
      <h3 className="part">Code and occupancy</h3>
      <div className="fields">
        <Select label="Governing edition" allowDeselect={false} value={brief.edition} data={(editions.data ?? []).map((e: Edition) => ({ value: e.id, label: e.title }))}
          onChange={(v) => { change((b) => { b.edition = v ?? b.edition; }); }} />
        <Select label="Risk category" placeholder="not given" clearable value={brief.occupancy?.risk_category ?? null} data={["I", "II", "III", "IV"]}
          onChange={(v) => { change((b) => { b.occupancy = { ...b.occupancy, risk_category: v as "I" | null }; }); }} />
        {edition?.choices.includes("supplements") && <Select label="Supplements that hold" allowDeselect={false} value={(brief.site?.supplements ?? [1, 3]).join(" ")}
          data={[{ value: "1 3", label: "1 and 3" }, { value: "1", label: "1" }, { value: "", label: "none" }]}
          onChange={(v) => { change((b) => { b.site = { ...b.site, supplements: (v ?? "").split(" ").filter(Boolean).map(Number) as (1 | 3)[] }; }); }} />}
        <ValueInput label="Tolerance" unit="%" value={(brief.tolerance ?? 0.01) * 100}
          onCommit={(v) => { change((b) => { b.tolerance = v === null ? null : v / 100; }); }} />
      </div>
      <h3 className="part">Lateral system in each direction</h3>
      <table className="plain" style={{ maxWidth: 1100 }}>
        <thead><tr><th>direction</th><th>structure type for T<sub>a</sub></th><th>equation of T<sub>a</sub></th><th>R</th><th>Ω<sub>0</sub></th><th>C<sub>d</sub></th><th>ρ</th><th>T from analysis</th><th>irregularities</th></tr></thead>
        <tbody>
          {(["X", "Y"] as const).map((d) => {
            const own: DirectionSystem = brief.system?.[d] ?? {};
            const set = (edit: (s: DirectionSystem) => void) => { change((b) => { const s = { ...b.system?.[d] }; edit(s); b.system = { ...b.system, [d]: s }; }); };
            const number = (name: "R" | "Omega_0" | "C_d" | "rho", title: string) => (
              <td><ValueInput aria-label={`${title} ${d}`} w={64} value={own[name]} onCommit={(v) => { set((s) => { s[name] = v; }); }} /></td>
            );
            return (
              <tr key={d}>
                <td><b>{d}</b></td>
                <td><Select aria-label={`Structure type ${d}`} w={210} clearable placeholder="not given" value={own.period_type ?? null}
                  data={(edition?.period_types ?? []).map((t: string) => ({ value: t, label: PERIOD_TYPES[t] ?? t }))}
                  onChange={(v) => { set((s) => { s.period_type = v; }); }} /></td>
                <td><Select aria-label={`Equation of T_a ${d}`} w={150} allowDeselect={false} value={own.T_a_formula ?? "12.8-7"}
                  data={[{ value: "12.8-7", label: "12.8-7 general" }, { value: "12.8-8", label: "12.8-8 0.1 N" }, { value: "12.8-9", label: "12.8-9 walls" }]}
                  onChange={(v) => { set((s) => { s.T_a_formula = (v ?? "12.8-7") as "12.8-7"; }); }} /></td>
                {number("R", "R")}{number("Omega_0", "Omega_0")}{number("C_d", "C_d")}{number("rho", "rho")}
                <td><ValueInput aria-label={`T from analysis ${d}`} w={92} unit="s" value={brief.period?.[d]?.analysis}
                  onCommit={(v) => { change((b) => { b.period = { ...b.period, [d]: { analysis: v } }; }); }} /></td>
                <td><Select aria-label={`Irregularities ${d}`} w={120} allowDeselect={false} value={own.regular === true ? "none" : own.regular === false ? "some" : "open"}
                  data={[{ value: "none", label: "none" }, { value: "some", label: "some" }, { value: "open", label: "not tested" }]}
                  onChange={(v) => { set((s) => { s.regular = v === "open" ? null : v === "none"; }); }} /></td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {(["X", "Y"] as const).some((d) => brief.system?.[d]?.T_a_formula === "12.8-9") && <Walls brief={brief} change={change} heights={edition?.choices.includes("wall_heights") ?? false} />}
      <Checkbox mt="sm" label="light-frame construction" checked={brief.system?.light_frame ?? false}
        onChange={(e) => { const on = e.currentTarget.checked; change((b) => { b.system = { ...b.system, light_frame: on }; }); }} />
      <StoriesEditor stories={brief.stories ?? []} onChange={(stories) => { change((b) => { b.stories = stories; }); }} />
      <p className="quiet" style={{ fontSize: 13 }}>
        Site values stand under <Link to="../ground">Ground</Link>. What is left open here is taken over from the submission and lowers the level of independence.
      </p>
      <ThisReview review={review} />
    </main>
  );
}
