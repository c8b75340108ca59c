import { Button, Checkbox, SegmentedControl } from "@mantine/core";
import { useState } from "react";
import { Bench } from "../../bench/Bench";
import { EditionFields } from "../../editions/EditionFields";
import { HazardLookup } from "../../editions/HazardLookup";
import { OwnSpectrum } from "../../editions/OwnSpectrum";
import { give, given, shortTitle } from "../../editions/places";
import { useReviewContext } from "../../review/useReviewContext";
import type { Site } from "../../shared/api/client";
import { useAcross, useEditions } from "../../shared/api/queries";
import { ChecksTable } from "../../shared/ChecksTable";
import { SymbolText } from "../../shared/Symbol";
import { Troubles } from "../../shared/Troubles";
import { useBrief } from "../../shared/useBrief";
import { ValueInput } from "../../shared/ValueInput";
import "../../editions/editions.css";

const MEASURED = ["v_s30", "N_SPT", "s_u", "site_period"] as const;

/** Do the site values hold? */
export default function GroundPage() {
  const { review, recheck, findings, selected, select, stepDeviation } = useReviewContext();
  const { brief, change, error, undo, canUndo, busy } = useBrief();
  const editions = useEditions();
  const across = useAcross(review.id);
  const [chosen, setChosen] = useState(brief.edition);
  if (!recheck || !editions.data) return null;
  const ids = [brief.edition, ...(brief.comparison_editions ?? [])];
  const edition = editions.data.find((e) => e.id === (ids.includes(chosen) ? chosen : brief.edition));
  if (!edition) return null;
  const governs = edition.id === brief.edition;
  const site: Site = brief.site ?? {};
  const described = across.data?.editions.find((e) => e.id === edition.id);
  const shared = new Map(editions.data.filter((e) => ids.includes(e.id)).flatMap((e) => e.inputs.map((i) => [i.name, i])));
  const measured = MEASURED.filter((n) => shared.has(n));
  const ownSoil = given(brief, edition.id, { name: edition.soil_input, part: "site" }, null) as string | null | undefined;
  const mce = given(brief, edition.id, { name: "mce", part: "site" }, null) as { T: number[] } | null | undefined;
  return (
    <div className="split">
      <main className="stage">
        <div className="stage-head">
          <h2 className="stage-title">Ground</h2>
          <span className="end"><span className="quiet" aria-live="polite">{busy ? "saving…" : ""}</span><Button variant="default" disabled={!canUndo} onClick={undo}>Undo</Button></span>
        </div>
        {ids.length > 1 && (
          <SegmentedControl aria-label="Edition" mt={8} value={edition.id} onChange={setChosen} data={ids.flatMap((id) => (editions.data ?? []).filter((e) => e.id === id).map((e) => ({ value: e.id, label: shortTitle(e) })))} />
        )}
        <Troubles error={error} title="Not saved; the values are as they were" />
        <h3 className="part">Our own values{ids.length > 1 && ` under ${edition.title}`}</h3>
        <EditionFields key={edition.id} edition={edition} brief={brief} change={change} needs={described?.needs ?? []} steps={across.data?.steps[edition.id]} wanted={(i) => i.part === "site" && !MEASURED.includes(i.name as "v_s30")} />
        {edition.choices.includes("category_by_S_DS_alone") && governs && (
          <Checkbox mt={8} label={<SymbolText text="category by S_DS alone where 11.6 permits" />} checked={site.category_by_S_DS_alone ?? false} onChange={(e) => { const on = e.currentTarget.checked; change((b) => { b.site = { ...b.site, category_by_S_DS_alone: on }; }); }} />
        )}
        {mce && <p className="quiet" style={{ fontSize: 13 }}>Multi-period spectrum of {mce.T.length} points is given. <button type="button" className="linklike" onClick={() => { change((b) => { give(b, edition.id, { name: "mce", part: "site" }, null, null); }); }}>leave it out</button></p>}
        {edition.inputs.some((i) => i.name === "curve") ? <OwnSpectrum edition={edition} brief={brief} change={change} /> : <HazardLookup key={`look-${edition.id}`} edition={edition} brief={brief} change={change} />}
        {measured.length > 0 && (
          <>
            <h3 className="part">Measured in the ground</h3>
            <div className="fields">
              {measured.map((name) => <ValueInput key={name} label={<SymbolText text={`${shared.get(name)?.symbol ?? name} ${shared.get(name)?.meaning.toLowerCase() ?? ""}`} />} unit={shared.get(name)?.unit} placeholder="not given" value={site[name]} onCommit={(v) => { change((b) => { b.site = { ...b.site, [name]: v }; }); }} />)}
            </div>
            {described?.measured_soil && (
              <p className={ownSoil && ownSoil !== described.measured_soil ? "off" : "quiet"} style={{ fontSize: 13, margin: "6px 0 0" }}>
                What was measured is <SymbolText text={described.measured_soil} /> under {edition.title}{ownSoil && ownSoil !== described.measured_soil ? <>, while <SymbolText text={ownSoil} /> is given</> : ""}.
              </p>
            )}
          </>
        )}
        {governs && recheck.notes.length > 0 && <ul className="notes">{recheck.notes.map((n) => <li key={n}><SymbolText text={n} /></li>)}</ul>}
        {!governs && (described?.words.ground_notes?.length ?? 0) > 0 && <ul className="notes">{described?.words.ground_notes?.map((n) => <li key={n}><SymbolText text={n} /></li>)}</ul>}
        {governs && <ChecksTable caption="Theirs and ours" checks={recheck.checks.filter((c) => c.stage === "ground")} selected={selected?.id} onSelect={select} />}
      </main>
      <Bench recheck={recheck} check={selected} findings={findings} reviewId={review.id} onSelect={select} onStep={stepDeviation} />
    </div>
  );
}
