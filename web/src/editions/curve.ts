import { typedNumber } from "../shared/typedNumber";
import { strings } from "./strings";

export interface Pairs {
  points: [number, number][];
  problem: string;
}

/** Two columns as they are pasted: periods that rise, and ordinates; a heading is passed over. */
export function pairs(text: string): Pairs {
  const points: [number, number][] = [];
  for (const [number, line] of text.split(/\r?\n/).entries()) {
    if (!line.trim()) continue;
    const cells = line
      .trim()
      .split(/\t|;|\s+|,\s+/)
      .filter(Boolean);
    const [T, S] = cells.map((c) => typedNumber(c));
    if (typeof T !== "number" || typeof S !== "number" || cells.length !== 2) {
      if (points.length === 0 && number === 0) continue;
      return { points, problem: strings.notTwoNumbers(number + 1) };
    }
    const before = points.at(-1);
    if (before && T <= before[0]) return { points, problem: strings.periodsIncrease(number + 1) };
    points.push([T, S]);
  }
  return { points, problem: points.length < 2 ? strings.enterAtLeastTwoPoints : "" };
}
