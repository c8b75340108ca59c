import type { Load, Story } from "../../shared/api/client";
import { typedNumber } from "../../shared/typedNumber";
import { strings } from "./strings";

export const KINDS = ["dead", "live", "storage", "roof_live", "partition", "equipment", "snow", "landscaping"] as const;
export const KIND_WORDS: Record<(typeof KINDS)[number], string> = {
  dead: strings.dead,
  live: strings.live,
  storage: strings.storage,
  roof_live: strings.roofLive,
  partition: strings.partitions,
  equipment: strings.equipment,
  snow: strings.snow,
  landscaping: strings.landscaping,
};

export interface PastedLoads {
  stories: Story[];
  problems: string[];
}

const kindOf = (text: string) =>
  KINDS.find(
    (k) =>
      k ===
        text
          .trim()
          .toLowerCase()
          .replace(/[\s-]+/g, "_") || KIND_WORDS[k] === text.trim().toLowerCase(),
  );

/**
 * Loads from cells copied out of a spreadsheet: story, load, kind, amount in kN, and where they count intensity in kPa,
 * area in m2, category of use.  They take the place of the weights of the stories named; nothing is taken where a line
 * cannot be read.
 */
export function pastedLoads(text: string, stories: Story[]): PastedLoads {
  const found = new Map<string, Load[]>();
  const problems: string[] = [];
  let story = "";
  text.split(/\r?\n/).forEach((line, i) => {
    if (!line.trim()) return;
    const [place = "", name = "", kind = "", amount = "", intensity = "", area = "", category = ""] = line
      .split(/\t|;/)
      .map((c) => c.trim());
    const value = typedNumber(amount);
    // a line of headings holds no numbers
    if (i === 0 && value === undefined) return;
    story = place || story;
    const known = kindOf(kind);
    const more = [typedNumber(intensity), typedNumber(area)];
    if (!stories.some((s) => s.name === story)) problems.push(strings.lineWithoutStory(i + 1, story));
    else if (!known) problems.push(strings.lineWithoutKind(i + 1, kind, KINDS.map((k) => KIND_WORDS[k]).join(", ")));
    else if (typeof value !== "number" || value < 0 || more.includes(undefined))
      problems.push(strings.lineWithoutAmount(i + 1, line.trim().slice(0, 60)));
    else {
      const load: Load = { name: name.slice(0, 60), kind: known, amount: value };
      if (typeof more[0] === "number") load.intensity = more[0];
      if (typeof more[1] === "number") load.area = more[1];
      if (category) load.category = category;
      found.set(story, [...(found.get(story) ?? []), load]);
    }
  });
  if (problems.length === 0 && found.size === 0) problems.push(strings.thePastedTextContainsNo);
  return {
    problems,
    stories: stories.map((s) => (found.has(s.name) ? { ...s, weight: null, loads: found.get(s.name) ?? null } : s)),
  };
}
