import type { Check, Recheck, StepValue } from "../shared/api/client";
import { movedFrom, type Before } from "../shared/before";
import { theirsText } from "../shared/numbers";
import { strings } from "./strings";

/** One story quantity over the height, bottom to top; null where a side has no value. */
export interface Track {
  title: string;
  unit: string;
  /** bars at the floors, steps for what holds over the height of a story, or a line through the floors */
  shape: "bars" | "steps" | "line";
  theirs: (number | null)[];
  /** theirs as a person reads it */
  texts: string[];
  ours: (number | null)[];
  /** whether theirs lies outside the tolerance about ours */
  out: boolean[];
  checks: (Check | undefined)[];
  /** whether the stories add up to something */
  adds: boolean;
  /** another quantity of ours that this one is compared with, as ticks */
  against?: { title: string; values: (number | null)[] };
  /** edges that values are checked against, each with its words; one value for each story */
  limits?: { words: string; values: (number | null)[] }[];
  /** a second line of theirs besides the first */
  also?: (number | null)[];
  /** where the axis starts, 0 if excluded */
  from?: number;
  /** ours without what is assumed, at the stories where it is another value now */
  before?: (number | null)[];
  /** stories whose values say nothing, shown greyed */
  faint?: boolean[];
}

const LATERAL = {
  w: { title: strings.weight, unit: "kN", shape: "bars", adds: true },
  F: { title: strings.force, unit: "kN", shape: "bars", adds: true },
  V_story: { title: strings.shear, unit: "kN", shape: "steps", adds: false },
  M_story: { title: strings.overturning, unit: "kN m", shape: "steps", adds: false },
  F_px: { title: strings.diaphragm, unit: "kN", shape: "bars", adds: false },
} as const;

const list = (values: StepValue[], id: string): (number | null)[] | undefined => {
  const value = values.find((s) => s.id === id)?.value;
  return Array.isArray(value) ? value : undefined;
};

/** What the checks of a story quantity say, one entry for each story. */
export function theirsOf(
  recheck: Recheck,
  quantityChecks: Check[],
): Pick<Track, "theirs" | "texts" | "out" | "checks"> {
  const checks = recheck.stories.map((story) => quantityChecks.find((c) => c.story === story));
  return {
    checks,
    theirs: checks.map((c) => (typeof c?.theirs?.value === "number" ? c.theirs.value : null)),
    texts: checks.map((c) => (c ? theirsText(c) : "–")),
    out: checks.map((c) => c !== undefined && (c.verdict === "differs" || c.verdict === "breaches")),
  };
}

export function trackOf(recheck: Recheck, name: keyof typeof LATERAL, direction: "X" | "Y"): Track {
  const quantityChecks = recheck.checks.filter(
    (c) => c.quantity === name && (name === "w" || c.direction === direction),
  );
  const ours = list(recheck.values, name === "w" ? "w" : `${name}.${direction}`) ?? recheck.stories.map(() => null);
  return { ...LATERAL[name], ...theirsOf(recheck, quantityChecks), ours };
}

/** A track with our values as they were without what is assumed. */
export function withBefore(track: Track, before: Before): Track {
  if (before.size === 0) return track;
  const was = track.checks.map((c, i) => {
    const [earlier, now] = [c && movedFrom(before, c), (c?.independent ?? c?.carried)?.value];
    const drawn = track.ours[i] ?? null;
    // a track may be in another unit than its checks, as drifts in per cent of the height: what moved is their ratio
    return typeof earlier === "number" && typeof now === "number" && now !== 0 && drawn !== null
      ? (drawn * earlier) / now
      : null;
  });
  return { ...track, before: was };
}

/** The story quantities of the static method in a direction. */
export const lateralTracks = (recheck: Recheck, direction: "X" | "Y"): Track[] =>
  (["w", "F", "V_story", "M_story", "F_px"] as const)
    // not every edition has a rule for the diaphragms
    .filter((name) => name !== "F_px" || list(recheck.values, `F_px.${direction}`) !== undefined)
    .map((name) => trackOf(recheck, name, direction));

/** Levels above the base at the bottom and top of each story, m; stories of one metre where no height is known. */
export function levelsOf(recheck: Recheck): number[] {
  const heights = list(recheck.values, "h") ?? recheck.stories.map(() => 1);
  return heights.reduce<number[]>((levels, h) => [...levels, (levels.at(-1) ?? 0) + (h ?? 1)], [0]);
}

/** Which floors are named besides the building: as many as have room, from the top down, and the one pointed at. */
export function namedFloors(heights: number[], pointedAt: number | null, room = 12): Set<number> {
  const named = new Set<number>(pointedAt === null ? [] : [pointedAt]);
  for (let i = heights.length - 1; i >= 0; i--) {
    const height = heights[i] ?? 0;
    if ([...named].every((k) => k === i || Math.abs((heights[k] ?? 0) - height) >= room)) named.add(i);
  }
  return named;
}

/** Round marks of an axis from zero to at least `most`, about `count` of them. */
export function axisMarks(most: number, count = 3): number[] {
  if (most <= 0) return [];
  const raw = most / count;
  const power = 10 ** Math.floor(Math.log10(raw));
  const step = ([1, 2, 2.5, 5, 10].find((s) => s * power >= raw) ?? 10) * power;
  return Array.from({ length: Math.floor(most / step) }, (_, i) => (i + 1) * step);
}

/** The sum over the stories; null where one of them is not known or nothing adds up. */
export const sumOf = (track: Track, side: "theirs" | "ours"): number | null =>
  track.adds && track[side].length > 0
    ? track[side].reduce<number | null>((sum, v) => (sum === null || v === null ? null : sum + v), 0)
    : null;

/** A text that a spreadsheet takes as text, though it begins as a formula does: names are other people's. */
export const asCell = (text: string): string =>
  /^[=+\-@\t\r]/.test(text) && !/^[+-]?[\d.,]+$/.test(text) ? `'${text}` : text;

/** The log as text for a spreadsheet: stories top down, theirs and ours side by side. */
export function asText(recheck: Recheck, tracks: Track[], corner: string): string {
  const levels = levelsOf(recheck);
  const heads = tracks.flatMap((t) => [
    asCell(strings.theirsOf(t.title, t.unit)),
    asCell(strings.oursOf(t.title, t.unit)),
  ]);
  const rows = recheck.stories.map((story, i) =>
    [asCell(story), levels[i + 1], ...tracks.flatMap((t) => [t.theirs[i] ?? "", t.ours[i] ?? ""])].join("\t"),
  );
  return [[corner, strings.levelM, ...heads].join("\t"), ...rows.reverse()].join("\n");
}
