import type { Check, Recheck, Step } from "../shared/api/client";

export const TRACKS = ["w", "F", "V_story", "M_story"] as const;
export type TrackName = (typeof TRACKS)[number];

export const TRACK_TITLES: Record<TrackName, { title: string; unit: string; shape: "bars" | "steps" }> = {
  w: { title: "weight", unit: "kN", shape: "bars" },
  F: { title: "force", unit: "kN", shape: "bars" },
  V_story: { title: "shear", unit: "kN", shape: "steps" },
  M_story: { title: "overturning", unit: "kN m", shape: "steps" },
};

/** One story quantity over the height, bottom to top; null where a side has no value. */
export interface Track {
  name: TrackName;
  theirs: (number | null)[];
  ours: (number | null)[];
  /** whether theirs lies outside the tolerance about ours */
  out: boolean[];
  checks: (Check | undefined)[];
}

const list = (steps: Step[], id: string): (number | null)[] | undefined => {
  const value = steps.find((s) => s.id === id)?.value;
  return Array.isArray(value) ? value : undefined;
};

export function trackOf(recheck: Recheck, name: TrackName, direction: "X" | "Y"): Track {
  const id = name === "w" ? "w" : `${name}.${direction}`;
  const own = recheck.checks.filter((c) => c.quantity === name && (name === "w" || c.direction === direction) && c.story !== null);
  const checks = recheck.stories.map((story) => own.find((c) => c.story === story));
  const ours = list(recheck.steps.independent, id) ?? recheck.stories.map(() => null);
  return {
    name,
    checks,
    ours,
    theirs: checks.map((c) => (typeof c?.theirs?.value === "number" ? c.theirs.value : null)),
    out: checks.map((c) => c !== undefined && (c.verdict === "differs" || c.verdict === "breaches")),
  };
}

/** Levels above the base at the bottom and top of each story, m; stories of one metre where no height is known. */
export function levelsOf(recheck: Recheck): number[] {
  const heights = list(recheck.steps.independent, "h") ?? recheck.stories.map(() => 1);
  return heights.reduce<number[]>((levels, h) => [...levels, (levels.at(-1) ?? 0) + (h ?? 1)], [0]);
}

/** Round marks of an axis from zero to at least `most`, about `count` of them. */
export function axisMarks(most: number, count = 3): number[] {
  if (most <= 0) return [];
  const raw = most / count;
  const power = 10 ** Math.floor(Math.log10(raw));
  const step = ([1, 2, 2.5, 5, 10].find((s) => s * power >= raw) ?? 10) * power;
  return Array.from({ length: Math.floor(most / step) }, (_, i) => (i + 1) * step);
}

/** The log as text that a spreadsheet takes as it stands: stories top down, theirs and ours side by side. */
export function asText(recheck: Recheck, tracks: Track[], direction: string): string {
  const levels = levelsOf(recheck);
  const heads = tracks.flatMap((t) => {
    const { title, unit } = TRACK_TITLES[t.name];
    return [`${title} theirs (${unit})`, `${title} ours (${unit})`];
  });
  const rows = recheck.stories.map((story, i) =>
    [story, levels[i + 1], ...tracks.flatMap((t) => [t.theirs[i] ?? "", t.ours[i] ?? ""])].join("\t"),
  );
  return [[`story, direction ${direction}`, "level (m)", ...heads].join("\t"), ...rows.reverse()].join("\n");
}
