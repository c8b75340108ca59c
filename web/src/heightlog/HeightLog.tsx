import { Button, CopyButton, SegmentedControl } from "@mantine/core";
import { useElementSize } from "@mantine/hooks";
import { useState } from "react";
import type { Brief, Recheck } from "../shared/api/client";
import { useBefore } from "../shared/before";
import { figures, percent } from "../shared/numbers";
import { SymbolText } from "../shared/Symbol";
import { asText, levelsOf, namedFloors, sumOf, withBefore, type Track } from "./data";
import { FOOT, TOP, TrackView } from "./TrackView";
import "./heightlog.css";
import { strings } from "./strings";

const STRIP = 158;
const GAP = 12;

interface Props {
  recheck: Recheck;
  brief: Brief;
  tracks: Track[];
  /** the direction the tracks hold in; excluded where they hold for the building */
  direction?: "X" | "Y";
  onDirection?: (direction: "X" | "Y") => void;
  onSelect: (id: string) => void;
  /** the story under the pointer, counted from the bottom */
  onStory?: (story: number) => void;
  /** height of the drawing, px */
  height?: number;
}

/** All story quantities on one vertical scale, the building's outline beside them. */
export function HeightLog(props: Props) {
  const { recheck, brief, tracks: known, direction, onDirection, onSelect, onStory, height = 400 } = props;
  const { ref, width } = useElementSize();
  const before = useBefore();
  const [titles, setTitles] = useState(() => known.map((t) => t.title));
  const [hovered, setHovered] = useState<number | null>(null);
  if (recheck.stories.length === 0) return <p className="quiet">{strings.noStoriesAreKnownYet}</p>;
  const read = (story: number | null) => {
    setHovered(story);
    if (story !== null) onStory?.(story);
  };
  const levels = levelsOf(recheck);
  const total = levels.at(-1) ?? 1;
  const bottom = height - FOOT;
  const y = (level: number) => bottom - (level / total) * (bottom - TOP - 12);
  const tracks = titles
    .flatMap((title) => known.find((t) => t.title === title) ?? [])
    .map((t) => withBefore(t, before));
  const trackWidth = Math.max(70, (width - STRIP - GAP * tracks.length) / Math.max(tracks.length, 1));
  const stories = recheck.stories.map((name, i) => ({ name, i, floor: levels[i + 1] ?? 0, base: levels[i] ?? 0 }));
  const named = namedFloors(
    stories.map(({ floor }) => y(floor)),
    hovered,
  );
  const side = direction === "Y" ? 1 : 0;
  const plans = recheck.stories.map((name) => brief.stories?.find((s) => s.name === name)?.plan?.[side]);
  const widest = Math.max(1, ...plans.map((p) => p ?? 0));
  const outline = (i: number) => 76 * ((plans[i] ?? widest) / widest);
  return (
    <section className="log" aria-label={strings.heightLog}>
      <div className="log-tools">
        <h3>{strings.heightLog}</h3>
        {direction && (
          <SegmentedControl
            aria-label={strings.directionOfTheLog}
            value={direction}
            data={["X", "Y"]}
            onChange={(v) => {
              onDirection?.(v);
            }}
          />
        )}
        <span className="quiet">{strings.theirsAndOursIndependent(recheck.submission)}</span>
        <TrackChips titles={titles} known={known.map((t) => t.title)} onChange={setTitles} />
      </div>
      <div ref={ref}>
        {width > 0 && (
          <svg
            width={width}
            height={height}
            role="img"
            aria-label={strings.storyValuesTheTableBelow(direction ? strings.inWord(direction) : "")}
            onMouseLeave={() => {
              read(null);
            }}
          >
            {hovered !== null && (
              <rect x={0} width={width} y={y(levels[hovered + 1] ?? 0) - 10} height={20} fill="var(--mark)" />
            )}
            {stories.map(({ name, i, floor, base }) => (
              <g key={name}>
                <rect
                  x={40 + (76 - outline(i)) / 2}
                  y={y(floor)}
                  width={outline(i)}
                  height={y(base) - y(floor)}
                  fill="var(--panel)"
                  stroke="var(--ink)"
                />
                {named.has(i) && (
                  <>
                    <text
                      x={34}
                      y={y(floor) + 4}
                      textAnchor="end"
                      className={hovered === i ? "log-name on" : "log-name"}
                    >
                      <title>{name}</title>
                      {name.length > 8 ? `${name.slice(0, 7)}…` : name}
                    </text>
                    <text x={122} y={y(floor) + 4} className="log-level">
                      {floor.toFixed(1)}
                    </text>
                  </>
                )}
              </g>
            ))}
            <line x1={0} x2={width} y1={bottom} y2={bottom} stroke="var(--ink)" strokeWidth={1.4} />
            {tracks.map((t, k) => (
              <TrackView
                key={t.title}
                track={t}
                x={STRIP + k * (trackWidth + GAP)}
                width={trackWidth}
                bottom={bottom}
                y={y}
                levels={levels}
                hovered={hovered}
              />
            ))}
            {stories.map(({ name, i, floor, base }) => {
              const upper = levels[i + 2] ?? floor + (floor - base);
              return (
                <rect
                  key={name}
                  x={0}
                  width={width}
                  y={y((floor + upper) / 2)}
                  height={y((floor + base) / 2) - y((floor + upper) / 2)}
                  fill="transparent"
                  onMouseEnter={() => {
                    read(i);
                  }}
                  onClick={(e) => {
                    const k = Math.floor(
                      (e.clientX - e.currentTarget.getBoundingClientRect().left - STRIP) / (trackWidth + GAP),
                    );
                    const found = tracks[k]?.checks[i];
                    if (found) onSelect(found.id);
                  }}
                />
              );
            })}
          </svg>
        )}
      </div>
      <p className="log-legend">
        <span>
          <svg width={12} height={12} aria-hidden>
            <circle cx={6} cy={6} r={4} fill="var(--ground)" stroke="var(--theirs)" strokeWidth={1.5} />
          </svg>{" "}
          <i className="theirs">{strings.theirs}</i>
        </span>
        <span>
          <svg width={22} height={12} aria-hidden>
            <line x1={0} x2={22} y1={6} y2={6} stroke="var(--ours)" strokeWidth={4} />
          </svg>{" "}
          <b className="ours">{strings.ours}</b>
        </span>
        <span>
          <svg width={18} height={12} aria-hidden>
            <rect width={18} height={12} fill="var(--shade)" />
          </svg>
          {strings.beyondTolerance}
        </span>
        {tracks.map(
          (t) =>
            t.against && (
              <span key={t.title}>
                <svg width={6} height={14} aria-hidden>
                  <line x1={3} x2={3} y1={0} y2={14} stroke="var(--ink)" strokeWidth={1.6} />
                </svg>{" "}
                {t.against.title}
              </span>
            ),
        )}
        {tracks.some((t) => t.before?.some((v) => v !== null)) && (
          <span>
            <svg width={12} height={14} aria-hidden>
              <line x1={6} x2={6} y1={1} y2={13} stroke="var(--ours)" strokeWidth={1.4} strokeDasharray="2 2" />
            </svg>{" "}
            {strings.oursBefore}
          </span>
        )}
        <CopyButton value={asText(recheck, tracks, direction ? strings.storyDirection(direction) : "story")}>
          {({ copied, copy }) => (
            <Button variant="default" size="compact-xs" ml="auto" onClick={copy}>
              {copied ? strings.copied : strings.copyTable}
            </Button>
          )}
        </CopyButton>
      </p>
      <div className="log-table" tabIndex={0} role="region" aria-label={strings.valuesByStory}>
        <table className="plain">
          <thead>
            <tr>
              <th rowSpan={2}>{strings.story}</th>
              <th rowSpan={2} className="n">
                {strings.levelColumn}
              </th>
              {tracks.map((t) => (
                <th key={t.title} colSpan={3} className="n">
                  <SymbolText text={t.title} />, {t.unit}
                </th>
              ))}
            </tr>
            <tr>
              {tracks.flatMap((t) => [
                <th key={t.title + "t"} className="n">
                  {strings.theirs}
                </th>,
                <th key={t.title + "o"} className="n">
                  {strings.ours}
                </th>,
                <th key={t.title + "d"} className="n">
                  {strings.deviation}
                </th>,
              ])}
            </tr>
          </thead>
          <tbody>
            {[...stories].reverse().map(({ name, i, floor }) => (
              <tr
                key={name}
                className={hovered === i ? "on" : ""}
                onMouseEnter={() => {
                  read(i);
                }}
              >
                <td>{name}</td>
                <td className="n quiet">{floor.toFixed(1)}</td>
                {tracks.map((t) => (
                  <Cells key={t.title} track={t} story={i} onSelect={onSelect} />
                ))}
              </tr>
            ))}
          </tbody>
          {tracks.some((t) => sumOf(t, "theirs") !== null || sumOf(t, "ours") !== null) && (
            <tfoot>
              <tr>
                <td className="quiet">{strings.sum}</td>
                <td />
                {tracks.map((t) => {
                  const [a, b] = [sumOf(t, "theirs"), sumOf(t, "ours")];
                  return [
                    <td key={t.title + "t"} className="n theirs">
                      {a === null ? "" : figures(a)}
                    </td>,
                    <td key={t.title + "o"} className="n ours">
                      {b === null ? "" : figures(b)}
                    </td>,
                    <td key={t.title + "d"} className="n quiet">
                      {a !== null && b ? percent((a - b) / b) : ""}
                    </td>,
                  ];
                })}
              </tr>
            </tfoot>
          )}
        </table>
      </div>
    </section>
  );
}

/** Tracks removed, put in again and moved. */
function TrackChips({
  titles,
  known,
  onChange,
}: {
  titles: string[];
  known: string[];
  onChange: (titles: string[]) => void;
}) {
  const move = (title: string, by: number) => {
    const at = titles.indexOf(title);
    const next = titles.filter((t) => t !== title);
    next.splice(Math.max(0, at + by), 0, title);
    onChange(next);
  };
  return (
    <span className="log-tracks">
      {titles.map((t, i) => (
        <span key={t} className="chip">
          {i > 0 && (
            <button
              type="button"
              aria-label={strings.moveLeft(t)}
              onClick={() => {
                move(t, -1);
              }}
            >
              ‹
            </button>
          )}
          <SymbolText text={t} />
          {i < titles.length - 1 && (
            <button
              type="button"
              aria-label={strings.moveRight(t)}
              onClick={() => {
                move(t, 1);
              }}
            >
              ›
            </button>
          )}
          <button
            type="button"
            aria-label={strings.remove(t)}
            onClick={() => {
              onChange(titles.filter((o) => o !== t));
            }}
          >
            ×
          </button>
        </span>
      ))}
      {known
        .filter((t) => !titles.includes(t))
        .map((t) => (
          <button
            key={t}
            type="button"
            className="chip"
            onClick={() => {
              onChange([...titles, t]);
            }}
          >
            + <SymbolText text={t} />
          </button>
        ))}
    </span>
  );
}

/** Theirs, ours and how far off; what is out opens on the bench. */
function Cells({ track, story, onSelect }: { track: Track; story: number; onSelect: (id: string) => void }) {
  const theirs = track.theirs[story] ?? null,
    ours = track.ours[story] ?? null,
    check = track.checks[story];
  const off = theirs !== null && ours ? percent((theirs - ours) / ours) : "";
  return (
    <>
      <td className="n theirs">{track.texts[story] ?? "–"}</td>
      <td className="n ours">{ours === null ? "–" : figures(ours)}</td>
      <td className={"n " + (track.out[story] ? "off" : "quiet")}>
        {track.out[story] && check ? (
          <button
            type="button"
            className="linklike off"
            onClick={() => {
              onSelect(check.id);
            }}
          >
            {off || strings.out}
          </button>
        ) : (
          off
        )}
      </td>
    </>
  );
}
