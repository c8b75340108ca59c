import { Button, CopyButton, SegmentedControl } from "@mantine/core";
import { useElementSize } from "@mantine/hooks";
import { useState } from "react";
import type { Recheck } from "../shared/api/client";
import { figures, percent, theirsText } from "../shared/numbers";
import { asText, axisMarks, levelsOf, trackOf, TRACK_TITLES, TRACKS, type Track, type TrackName } from "./data";
import "./heightlog.css";

const HEIGHT = 400;
const TOP = 34;
const FOOT = 26;
const STRIP = 158;
const GAP = 12;

interface Props {
  recheck: Recheck;
  plans: ([number, number] | null)[];
  direction: "X" | "Y";
  onDirection: (direction: "X" | "Y") => void;
  onSelect: (id: string) => void;
}

/** All story quantities on one vertical scale, the building's outline beside them. */
export function HeightLog({ recheck, plans, direction, onDirection, onSelect }: Props) {
  const { ref, width } = useElementSize();
  const [names, setNames] = useState<TrackName[]>([...TRACKS]);
  const [hovered, setHovered] = useState<number | null>(null);
  const levels = levelsOf(recheck);
  const total = levels.at(-1) ?? 1;
  const bottom = HEIGHT - FOOT;
  const y = (level: number) => bottom - (level / total) * (bottom - TOP - 12);
  const tracks = names.map((n) => trackOf(recheck, n, direction));
  const trackWidth = Math.max(70, (width - STRIP - GAP * names.length) / Math.max(names.length, 1));
  const stories = recheck.stories.map((name, i) => ({ name, i, floor: levels[i + 1] ?? 0, base: levels[i] ?? 0 }));
  const move = (name: TrackName, by: number) => {
    setNames((now) => {
      const at = now.indexOf(name);
      const next = [...now];
      next.splice(at, 1);
      next.splice(Math.max(0, at + by), 0, name);
      return next;
    });
  };
  if (stories.length === 0) return <p className="quiet">No stories are known yet: type them in the brief, or accept a table of stories.</p>;
  const widest = Math.max(1, ...plans.map((p) => p?.[direction === "X" ? 0 : 1] ?? 0));
  const plan = (i: number) => { const p = plans[i]?.[direction === "X" ? 0 : 1]; return 76 * (p ? p / widest : 1); };
  return (
    <section className="log" aria-label="Height log">
      <div className="log-tools">
        <h3>Height log</h3>
        <SegmentedControl aria-label="Direction of the log" value={direction} data={["X", "Y"]} onChange={(v) => { onDirection(v as "X" | "Y"); }} />
        <span className="quiet">theirs {recheck.submission} against ours, independent</span>
        <span className="log-tracks">
          {names.map((n, i) => (
            <span key={n} className="chip">
              {i > 0 && <button type="button" aria-label={`Move ${TRACK_TITLES[n].title} to the left`} onClick={() => { move(n, -1); }}>‹</button>}
              {TRACK_TITLES[n].title}
              {i < names.length - 1 && <button type="button" aria-label={`Move ${TRACK_TITLES[n].title} to the right`} onClick={() => { move(n, 1); }}>›</button>}
              <button type="button" aria-label={`Take ${TRACK_TITLES[n].title} out`} onClick={() => { setNames(names.filter((o) => o !== n)); }}>×</button>
            </span>
          ))}
          {TRACKS.filter((n) => !names.includes(n)).map((n) => (
            <button key={n} type="button" className="chip" onClick={() => { setNames([...names, n]); }}>+ {TRACK_TITLES[n].title}</button>
          ))}
        </span>
      </div>
      <div ref={ref}>
        {width > 0 && (
          <svg width={width} height={HEIGHT} role="img" aria-label={`Story values in ${direction}; the table below holds them all`} onMouseLeave={() => { setHovered(null); }}>
            <defs>
              <clipPath id="log-clip"><rect x={0} y={0} width={width} height={HEIGHT} /></clipPath>
            </defs>
            {hovered !== null && <rect x={0} width={width} y={y(levels[hovered + 1] ?? 0) - 10} height={20} fill="var(--mark)" />}
            {stories.map(({ name, i, floor, base }) => (
              <g key={name}>
                <rect x={40 + (76 - plan(i)) / 2} y={y(floor)} width={plan(i)} height={y(base) - y(floor)} fill="var(--panel)" stroke="var(--ink)" />
                <text x={34} y={y(floor) + 4} textAnchor="end" className={hovered === i ? "log-name on" : "log-name"}>{name.slice(0, 8)}</text>
                <text x={122} y={y(floor) + 4} className="log-level">{floor.toFixed(1)}</text>
              </g>
            ))}
            <line x1={0} x2={width} y1={bottom} y2={bottom} stroke="var(--ink)" strokeWidth={1.4} />
            {tracks.map((t, k) => (
              <TrackView key={t.name} track={t} x={STRIP + k * (trackWidth + GAP)} width={trackWidth} bottom={bottom} y={y} levels={levels} hovered={hovered} />
            ))}
            {stories.map(({ name, i, floor, base }) => {
              const upper = levels[i + 2] ?? floor + (floor - base);
              return (
                <rect key={name} x={0} width={width} y={y((floor + upper) / 2)} height={y((floor + base) / 2) - y((floor + upper) / 2)} fill="transparent"
                  onMouseEnter={() => { setHovered(i); }}
                  onClick={(e) => {
                    const k = Math.floor((e.clientX - e.currentTarget.getBoundingClientRect().left - STRIP) / (trackWidth + GAP));
                    const found = tracks[k]?.checks[i];
                    if (found) onSelect(found.id);
                  }} />
              );
            })}
          </svg>
        )}
      </div>
      <p className="log-legend">
        <span><svg width={12} height={12} aria-hidden><circle cx={6} cy={6} r={4} fill="var(--ground)" stroke="var(--theirs)" strokeWidth={1.5} /></svg> <i className="theirs">theirs</i></span>
        <span><svg width={22} height={12} aria-hidden><line x1={0} x2={22} y1={6} y2={6} stroke="var(--ours)" strokeWidth={4} /></svg> <b className="ours">ours</b></span>
        <span><svg width={18} height={12} aria-hidden><rect width={18} height={12} fill="var(--shade)" /></svg> beyond tolerance</span>
        <CopyButton value={asText(recheck, tracks, direction)}>
          {({ copied, copy }) => <Button variant="default" size="compact-xs" ml="auto" onClick={copy}>{copied ? "Copied" : "Copy table"}</Button>}
        </CopyButton>
      </p>
      <div className="log-table">
        <table className="plain">
          <thead>
            <tr><th rowSpan={2}>story</th><th rowSpan={2} className="n">level, m</th>{tracks.map((t) => <th key={t.name} colSpan={3} className="n">{TRACK_TITLES[t.name].title}, {TRACK_TITLES[t.name].unit}</th>)}</tr>
            <tr>{tracks.flatMap((t) => [<th key={t.name + "t"} className="n">theirs</th>, <th key={t.name + "o"} className="n">ours</th>, <th key={t.name + "d"} className="n">off by</th>])}</tr>
          </thead>
          <tbody>
            {[...stories].reverse().map(({ name, i, floor }) => (
              <tr key={name} className={hovered === i ? "on" : ""} onMouseEnter={() => { setHovered(i); }}>
                <td>{name}</td><td className="n quiet">{floor.toFixed(1)}</td>
                {tracks.flatMap((t) => {
                  const a = t.theirs[i] ?? null, b = t.ours[i] ?? null;
                  return [
                    <td key={t.name + "t"} className="n theirs">{t.checks[i] ? theirsText(t.checks[i]) : "–"}</td>,
                    <td key={t.name + "o"} className="n ours">{b === null ? "–" : figures(b)}</td>,
                    <td key={t.name + "d"} className={"n " + (t.out[i] ? "off" : "quiet")}>{a !== null && b ? percent((a - b) / b) : ""}</td>,
                  ];
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

interface TrackProps {
  track: Track;
  x: number;
  width: number;
  bottom: number;
  y: (level: number) => number;
  levels: number[];
  hovered: number | null;
}

function TrackView({ track, x, width, bottom, y, levels, hovered }: TrackProps) {
  const { title, unit, shape } = TRACK_TITLES[track.name];
  const most = Math.max(1e-9, ...track.theirs.map((v) => v ?? 0), ...track.ours.map((v) => v ?? 0)) * 1.06;
  const at = (v: number) => x + (v / most) * width;
  const rows = track.ours.map((ours, i) => ({ i, ours, theirs: track.theirs[i] ?? null, out: track.out[i] ?? false, floor: y(levels[i + 1] ?? 0), base: y(levels[i] ?? 0) }));
  // story shears hold over the height of their story, so they step at the floors
  const stepPath = (side: "ours" | "theirs") => {
    let path = "";
    for (const r of [...rows].reverse()) {
      const v = r[side];
      if (v === null) continue;
      path += `${path ? "L" : `M${String(x)} ${String(r.floor)}L`}${String(at(v))} ${String(r.floor)}V${String(r.base)}`;
    }
    return path;
  };
  const read = hovered === null ? undefined : rows[hovered];
  return (
    <g>
      <rect x={x} y={TOP} width={width} height={bottom - TOP} fill="none" stroke="var(--line)" />
      <text x={x} y={14} className="log-title">{title}</text>
      <text x={x + width} y={14} textAnchor="end" className="log-unit">{unit}</text>
      {axisMarks(most, width > 130 ? 3 : 2).map((m) => (
        <g key={m}>
          <line x1={at(m)} x2={at(m)} y1={TOP} y2={bottom} stroke="var(--line)" strokeDasharray="1 3" />
          <text x={at(m)} y={bottom + 16} textAnchor="middle" className="log-unit">{figures(m, 2)}</text>
        </g>
      ))}
      {shape === "bars" && rows.map((r) => (
        <g key={r.i}>
          {r.out && r.ours !== null && r.theirs !== null && (
            <rect x={Math.min(at(r.ours), at(r.theirs))} width={Math.abs(at(r.ours) - at(r.theirs))} y={r.floor - 6} height={12} fill="var(--shade)" />
          )}
          {r.ours !== null && <line x1={x} x2={at(r.ours)} y1={r.floor} y2={r.floor} stroke="var(--ours)" strokeWidth={4} />}
          {r.theirs !== null && <circle cx={at(r.theirs)} cy={r.floor} r={4.5} fill="var(--ground)" stroke="var(--theirs)" strokeWidth={1.6} />}
        </g>
      ))}
      {shape === "steps" && (
        <g>
          {rows.map((r) => r.out && r.ours !== null && r.theirs !== null && (
            <rect key={r.i} x={Math.min(at(r.ours), at(r.theirs))} width={Math.abs(at(r.ours) - at(r.theirs))} y={r.floor} height={r.base - r.floor} fill="var(--shade)" />
          ))}
          <path d={stepPath("ours")} fill="none" stroke="var(--ours)" strokeWidth={2.4} />
          <path d={stepPath("theirs")} fill="none" stroke="var(--theirs)" strokeWidth={1.5} strokeDasharray="4 3" />
        </g>
      )}
      {read && (
        <text x={x + width} y={28} textAnchor="end" className="log-read">
          <tspan className="theirs" fill="var(--theirs)">{hovered !== null && track.checks[hovered] ? theirsText(track.checks[hovered]) : "–"}</tspan>
          <tspan> / </tspan>
          <tspan fill="var(--ours)" fontWeight={640}>{read.ours === null ? "–" : figures(read.ours)}</tspan>
          {read.out && read.theirs !== null && read.ours ? <tspan fill="var(--off-text)" fontWeight={600}> {percent((read.theirs - read.ours) / read.ours)}</tspan> : null}
        </text>
      )}
    </g>
  );
}
