import { Button, Checkbox, Select } from "@mantine/core";
import { Bench } from "../../bench/Bench";
import { useReviewContext } from "../../review/useReviewContext";
import type { Site } from "../../shared/api/client";
import { useEditions } from "../../shared/api/queries";
import { ChecksTable } from "../../shared/ChecksTable";
import { SymbolText } from "../../shared/Symbol";
import { Troubles } from "../../shared/Troubles";
import { useBrief } from "../../shared/useBrief";
import { ValueInput } from "../../shared/ValueInput";

const CLASSES = { A: "A hard rock", B: "B rock", C: "C very dense soil", D: "D stiff soil", E: "E soft clay", F: "F site response" };

/** Do the site values hold? */
export default function GroundPage() {
  const { review, recheck, findings, selected, select, stepDeviation } = useReviewContext();
  const { brief, change, error, undo, canUndo, busy } = useBrief();
  const editions = useEditions();
  if (!recheck) return null;
  const choices = editions.data?.find((e) => e.id === brief.edition)?.choices ?? [];
  const site: Site = brief.site ?? {};
  const set = (edit: Partial<Site>) => { change((b) => { b.site = { ...b.site, ...edit }; }); };
  const checks = recheck.checks.filter((c) => c.stage === "ground");
  const number = (name: "S_S" | "S_1" | "T_L" | "F_a" | "F_v", label: string, unit: string) => (
    <ValueInput label={<SymbolText text={label} />} unit={unit} value={site[name]} placeholder={name.startsWith("F") ? "from the table" : "not given"} onCommit={(v) => { set({ [name]: v }); }} />
  );
  const flag = (name: "class_by_default" | "velocity_measured" | "isolated_or_damped" | "diaphragms_rigid" | "category_by_S_DS_alone", label: string, standard = false) => (
    <Checkbox label={<SymbolText text={label} />} checked={site[name] ?? standard} onChange={(e) => { set({ [name]: e.currentTarget.checked }); }} />
  );
  return (
    <div className="split">
      <main className="stage">
        <div className="stage-head">
          <h2 className="stage-title">Ground</h2>
          <span className="end"><span className="quiet" aria-live="polite">{busy ? "saving…" : ""}</span><Button variant="default" disabled={!canUndo} onClick={undo}>Undo</Button></span>
        </div>
        <Troubles error={error} title="Not saved; the values are as they were" />
        <h3 className="part">Our own values</h3>
        <div className="fields">
          {number("S_S", "S_S mapped, short period", "g")}
          {number("S_1", "S_1 mapped, 1 s", "g")}
          {number("T_L", "T_L long-period transition", "s")}
          <Select label="Site class" placeholder="not given" clearable value={site.site_class ?? null} data={Object.entries(CLASSES).map(([value, label]) => ({ value, label }))}
            onChange={(v) => { set({ site_class: v as Site["site_class"] }); }} />
          {number("F_a", "F_a where a study gives it", "")}
          {number("F_v", "F_v where a study gives it", "")}
        </div>
        <div className="fields" style={{ marginTop: 10 }}>
          {flag("class_by_default", "class by default, soil not known")}
          {choices.includes("velocity_measured") && flag("velocity_measured", "shear wave velocity measured", true)}
          {flag("isolated_or_damped", "isolated or damped structure")}
          {flag("diaphragms_rigid", "rigid diaphragms (11.6)")}
          {flag("category_by_S_DS_alone", "category by S_DS alone where 11.6 permits")}
        </div>
        {recheck.notes.length > 0 && <ul className="notes">{recheck.notes.map((n) => <li key={n}><SymbolText text={n} /></li>)}</ul>}
        <ChecksTable caption="Theirs and ours" checks={checks} selected={selected?.id} onSelect={select} />
      </main>
      <Bench recheck={recheck} check={selected} findings={findings} reviewId={review.id} onSelect={select} onStep={stepDeviation} />
    </div>
  );
}
