import { strings } from "./strings";
import type { Story } from "../../shared/api/client";
import { typedNumber } from "../../shared/typedNumber";

export interface PastedStories {
  stories: Story[];
  problems: string[];
}

/**
 * Stories from cells copied out of a spreadsheet: name, height in m, weight in kN, top or bottom first.
 * Nothing is taken where a line cannot be read.
 */
export function pastedStories(text: string): PastedStories {
  const stories: Story[] = [];
  const problems: string[] = [];
  text.split(/\r?\n/).forEach((line, i) => {
    if (!line.trim()) return;
    const [name = "", height = "", weight = ""] = line.split(/\t|;/).map((c) => c.trim());
    const h = typedNumber(height);
    const w = typedNumber(weight);
    // a line of headings holds no numbers
    if (i === 0 && h === undefined && w === undefined) return;
    if (!name || h === undefined || h === null || h <= 0 || w === undefined || (w !== null && w <= 0)) {
      problems.push(strings.lineWithoutStoryValues(i + 1, line.trim().slice(0, 60)));
    } else if (stories.some((s) => s.name === name)) {
      problems.push(strings.nameOfTwoStories(i + 1, name));
    } else {
      stories.push(w === null ? { name, height: h } : { name, height: h, weight: w });
    }
  });
  const numbers = stories.map((s) => Number(/(\d+)\D*$/.exec(s.name)?.[1] ?? NaN)).filter((n) => !Number.isNaN(n));
  const first = numbers[0];
  const last = numbers.at(-1);
  if (first !== undefined && last !== undefined && first > last) stories.reverse();
  return { stories, problems };
}
