import { Button } from "@mantine/core";
import { useElementSize } from "@mantine/hooks";
import { Link } from "react-router";
import { useState } from "react";
import { Bench } from "../../bench/Bench";
import { shortTitle } from "../../editions/places";
import type { InspectAnswer, ModelFloor } from "../../model/answers";
import { RunStatus } from "../../model/RunStatus";
import { useModel, useRun } from "../../model/useModel";
import { useReviewContext } from "../../review/useReviewContext";
import type { Check, Story } from "../../shared/api/client";
import { useAcross, useEditions } from "../../shared/api/queries";
import { ChecksTable } from "../../shared/ChecksTable";
import { figures, percent, trimmed } from "../../shared/numbers";
import { weightRows, type WeightRow } from "./weights";
import "./weight.css";

/** Is the mass right? Static weight against the mass of both analyses, story by story. */
export default function WeightPage() {
  const { review, recheck, findings, selected, select, stepDeviation } = useReviewContext();
  const across = useAcross(review.id);
  const editions = useEditions();
  const model = useModel(review.id);
  const inspected = useRun<InspectAnswer>(review.id, "model", model.number, review.brief_number, model.number > 0);
  const [story, setStory] = useState<number | null>(null);
  if (!recheck) return null;
  const stories = review.brief.stories ?? [];
  const floors = inspected.answer?.floors ?? [];
  const rows = weightRows(recheck, floors);
  const checks = recheck.checks.filter((c) => c.stage === "weight" || c.quantity === "w" || c.quantity === "W");
  const known = [review.brief.edition, ...(review.brief.comparison_editions ?? [])].flatMap((id) => { const e = editions.data?.find((x) => x.id === id); return e ? [e] : []; });
  const at = story ?? rows.length - 1;
  const sources = (inspected.answer?.mass ?? []).map((m) => m);
  return (
    <div className="split wide">
      <main className="stage">
        <div className="stage-head"><h2 className="stage-title">Weight</h2><span className="quiet">static weight against mass × g of both analyses</span></div>
        {rows.length === 0 ? (
          <div className="empty"><p>No stories are known yet.</p><Button component={Link} to="../brief">Give them in the brief</Button></div>
        ) : (
          <>
            {model.number === 0 && !model.loading && <p className="quiet">Our own model would stand beside these: <Link to="../frame">make one</Link>.</p>}
            {model.number > 0 && <RunStatus {...inspected} />}
            <div className="weight-top">
              <WeightLog rows={rows} stories={stories} onStory={setStory} at={at} onSelect={select} />
              <CentrePlan floors={floors} at={at} names={rows.map((r) => r.name)} />
            </div>
            <MakeUp stories={stories} editions={known.map((e) => ({ id: e.id, title: shortTitle(e) }))} weights={across.data?.weights} />
            {sources.length > 0 && <Sources rows={sources} />}
          </>
        )}
        <ChecksTable caption="Checks of weight and mass" checks={checks} selected={selected?.id} onSelect={select} />
      </main>
      <Bench recheck={recheck} check={selected} findings={findings} reviewId={review.id} onSelect={select} onStep={stepDeviation} />
    </div>
  );
}

const TRACKS = [
  { key: "weight", title: "static weight W", theirs: "w", ours: "ownWeight" },
  { key: "mass", title: "mass × g", theirs: "theirMass", ours: "ownMass" },
] as const;
const HEIGHT = 330;

/** Static weight and mass × g over the height: theirs hollow, ours solid, beyond tolerance shaded. */
function WeightLog({ rows, stories, at, onStory, onSelect }: { rows: WeightRow[]; stories: Story[]; at: number; onStory: (i: number) => void; onSelect: (id: string) => void }) {
  const { ref, width } = useElementSize();
  const levels = rows.reduce<number[]>((l, _, i) => [...l, (l.at(-1) ?? 0) + (stories[i]?.height ?? 1)], []);
  const total = levels.at(-1) ?? 1;
  const bottom = HEIGHT - 26, top = 30;
  const y = (level: number) => bottom - (level / total) * (bottom - top - 12);
  const strip = 60, gap = 22, track = Math.max(120, (width - strip - gap * 2) / 2);
  const most = Math.max(1, ...rows.flatMap((r) => [r.w, r.ownWeight, r.theirMass, r.ownMass].map((v) => v ?? 0))) * 1.05;
  return (
    <div ref={ref} style={{ minWidth: 0 }}>
      {width > 0 && (
        <svg width={width} height={HEIGHT} role="img" aria-label="Weights by story; the table below holds them all">
          {TRACKS.map((t, k) => {
            const x = strip + k * (track + gap), to = (v: number) => x + (v / most) * track;
            return (
              <g key={t.key}>
                <text x={x} y={16} fontSize={12.5} fontWeight={620} fill="var(--ink)">{t.title}</text><text x={x + track} y={16} textAnchor="end" fontSize={11.5} fill="var(--quiet)">kN</text>
                <rect x={x} y={top} width={track} height={bottom - top} fill="none" stroke="var(--line)" />
                {rows.map((r, i) => {
                  const theirs = r[t.theirs], ours = r[t.ours], floor = y(levels[i] ?? 0), check = t.key === "weight" ? r.weightCheck : r.massCheck;
                  const out = check?.verdict === "differs" || check?.verdict === "breaches";
                  return (
                    <g key={r.name} onMouseEnter={() => { onStory(i); }} onClick={() => { if (check) onSelect(check.id); }} style={{ cursor: check ? "pointer" : "default" }}>
                      <rect x={x} y={floor - 12} width={track} height={24} fill={i === at ? "var(--mark)" : "transparent"} />
                      {out && theirs !== null && ours !== null && <rect x={Math.min(to(theirs), to(ours))} width={Math.abs(to(theirs) - to(ours))} y={floor - 7} height={14} fill="var(--shade)" />}
                      {ours !== null && <line x1={x} x2={to(ours)} y1={floor} y2={floor} stroke="var(--ours)" strokeWidth={5} />}
                      {theirs !== null && <circle cx={to(theirs)} cy={floor} r={4.5} fill="var(--ground)" stroke="var(--theirs)" strokeWidth={1.6} />}
                      {out && theirs !== null && ours ? <text x={x + track - 4} y={floor - 9} textAnchor="end" fontSize={11.5} fontWeight={600} fill="var(--off-text)">{percent((theirs - ours) / ours)}</text> : null}
                    </g>
                  );
                })}
              </g>
            );
          })}
          {rows.map((r, i) => <text key={r.name} x={strip - 8} y={y(levels[i] ?? 0) + 4} textAnchor="end" fontSize={12} fontWeight={i === at ? 640 : 400} fill="var(--ink)">{r.name.slice(0, 7)}</text>)}
          <line x1={0} x2={width} y1={bottom} y2={bottom} stroke="var(--ink)" strokeWidth={1.4} />
        </svg>
      )}
      <table className="plain weight-table" aria-label="Weights by story">
        <thead><tr><th>story</th><th className="n">W theirs</th><th className="n">W ours</th><th className="n">m g theirs</th><th className="n">m g ours</th><th className="n">m g / W, ours</th></tr></thead>
        <tbody>
          {[...rows].map((r, i) => ({ r, i })).reverse().map(({ r, i }) => (
            <tr key={r.name} className={i === at ? "on" : ""} onMouseEnter={() => { onStory(i); }}>
              <td>{r.name}</td>
              <Theirs value={r.w} check={r.weightCheck} onSelect={onSelect} /><td className="n ours">{shown(r.ownWeight)}</td>
              <Theirs value={r.theirMass} check={r.massCheck} onSelect={onSelect} /><td className="n ours">{shown(r.ownMass)}</td>
              <td className="n quiet">{r.ownMass !== null && r.ownWeight ? (r.ownMass / r.ownWeight).toFixed(3) : "–"}</td>
            </tr>
          ))}
        </tbody>
        <tfoot><tr><td className="quiet">sum</td>{(["w", "ownWeight", "theirMass", "ownMass"] as const).map((k) => <td key={k} className={`n ${k.startsWith("own") ? "ours" : "theirs"}`}>{shown(rows.every((r) => r[k] !== null) ? rows.reduce((s, r) => s + (r[k] ?? 0), 0) : null)}</td>)}<td /></tr></tfoot>
      </table>
    </div>
  );
}

const shown = (v: number | null) => (v === null ? "–" : figures(v));

function Theirs({ value, check, onSelect }: { value: number | null; check: Check | undefined; onSelect: (id: string) => void }) {
  const out = check?.verdict === "differs" || check?.verdict === "breaches";
  return <td className="n">{out ? <button type="button" className="linklike off" onClick={() => { onSelect(check.id); }}><i className="theirs">{shown(value)}</i></button> : <span className="theirs">{shown(value)}</span>}</td>;
}

const PLAN = 250;

/** The floor of a story in plan with its centre of mass. */
function CentrePlan({ floors, at, names }: { floors: ModelFloor[]; at: number; names: string[] }) {
  const floor = floors.find((f) => f.name === names[at]);
  if (!floor) return <div className="weight-plan quiet" style={{ padding: 12, fontSize: 13 }}>The centre of mass is drawn here once our own model is there.</div>;
  const xs = floor.corners.map((c) => c[0]), ys = floor.corners.map((c) => c[1]);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const unit = (PLAN - 50) / Math.max(x1 - x0, y1 - y0, 1);
  const px = (x: number) => PLAN / 2 + (x - (x0 + x1) / 2) * unit, py = (y: number) => PLAN / 2 - (y - (y0 + y1) / 2) * unit;
  const [cx, cy] = floor.centre;
  const off = Math.hypot(cx - (x0 + x1) / 2, cy - (y0 + y1) / 2);
  return (
    <div className="weight-plan">
      <svg width={PLAN} height={PLAN} role="img" aria-label={`Plan of ${floor.name} with its centre of mass`}>
        <polygon points={floor.corners.map((c) => `${String(px(c[0]))},${String(py(c[1]))}`).join(" ")} fill="none" stroke="var(--ink)" />
        <path d={`M${String(px((x0 + x1) / 2) - 5)} ${String(py((y0 + y1) / 2))}h10M${String(px((x0 + x1) / 2))} ${String(py((y0 + y1) / 2) - 5)}v10`} stroke="var(--quiet)" />
        <circle cx={px(cx)} cy={py(cy)} r={6} fill="var(--ours)" />
        <text x={10} y={18} fontSize={12.5} fontWeight={620} fill="var(--ink)">{floor.name}</text>
      </svg>
      <p className="quiet" style={{ fontSize: 12.5, margin: "0 10px 8px" }}>
        centre of mass <b className="ours">{cx.toFixed(2)}, {cy.toFixed(2)} m</b>, {off < 0.005 ? "in the middle of the plan" : `${off.toFixed(2)} m from the middle`}; {figures(floor.mass)} t, {figures(floor.inertia)} t m²
      </p>
    </div>
  );
}

type Weights = NonNullable<ReturnType<typeof useAcross>["data"]>["weights"];

/** What the weights are made of: loads by story and the share each edition counts. */
function MakeUp({ stories, editions, weights }: { stories: Story[]; editions: { id: string; title: string }[]; weights: Weights | undefined }) {
  const made = stories.map((s, i) => ({ s, i })).filter(({ s }) => s.loads?.length && !s.weight).reverse();
  if (made.length === 0) return <p className="quiet" style={{ fontSize: 13 }}>The brief gives weights as a whole. <Link to="../brief">Give the loads they come from</Link> and each edition’s share of them is shown here.</p>;
  return (
    <section aria-label="Weight make-up">
      <h3 className="part">Weight make-up</h3>
      <table className="plain">
        <thead><tr><th>story</th><th>load</th><th>kind</th><th className="n">amount, kN</th>{editions.map((e) => <th key={e.id} className="n">{e.title}</th>)}</tr></thead>
        <tbody>
          {made.map(({ s, i }) => (s.loads ?? []).map((load, k) => (
            <tr key={`${s.name} ${String(k)}`}>
              <td>{k === 0 ? s.name : ""}</td><td>{load.name}</td><td>{load.kind}</td><td className={`n${load.amount < 0 ? " off" : ""}`}>{figures(load.amount)}</td>
              {editions.map((e) => { const c = weights?.[e.id]?.loads?.[i]?.[k]; return <td key={e.id} className="n" title={c?.why}>{c ? <>{figures(c.counted)} <span className="quiet">× {trimmed(c.share)}</span></> : "open"}</td>; })}
            </tr>
          )))}
        </tbody>
      </table>
    </section>
  );
}

const SOURCES = [["stories", "story weights"], ["floors", "floors"], ["members", "members"], ["lines", "on members"], ["point", "at nodes"], ["equipment", "equipment"]] as const;

/** Where the mass of our model comes from: each source in a column of its own, so that none counts twice unseen. */
function Sources({ rows }: { rows: InspectAnswer["mass"] }) {
  const used = SOURCES.filter(([key]) => rows.some((r) => typeof r[key] === "number" && r[key] !== 0));
  return (
    <section aria-label="Where the mass of our model comes from">
      <h3 className="part">Where the mass of our model comes from, t</h3>
      <table className="plain">
        <thead><tr><th>floor</th>{used.map(([key, title]) => <th key={key} className="n">{title}</th>)}<th className="n">sum</th></tr></thead>
        <tbody>
          {[...rows].reverse().map((r) => (
            <tr key={String(r["floor"])}><td>{String(r["floor"])}</td>{used.map(([key]) => <td key={key} className="n">{figures(Number(r[key] ?? 0))}</td>)}<td className="n ours">{figures(Number(r["total"] ?? 0))}</td></tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
