/** How numbers are shown: never more digits than they mean; the full value goes into titles and copies. */

const MINUS = "−";

/** A value of ours with four significant digits, without exponents for the sizes that occur. */
export function figures(value: number | string | boolean, digits = 4): string {
  if (typeof value === "string") return value;
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (!Number.isFinite(value)) return "–";
  if (value === 0) return "0";
  const decimals = Math.max(0, digits - 1 - Math.floor(Math.log10(Math.abs(value))));
  const text = value.toFixed(Math.min(decimals, 6));
  return grouped(text);
}

/** Four digits, without zeros that say nothing (0.05, not 0.05000): for factors and limits. */
export const trimmed = (value: number): string =>
  figures(value)
    .replace(/(\.\d*?)0+$/, "$1")
    .replace(/\.$/, "");

/** Ours written to as many decimals as theirs was given with, and at least three significant digits. */
export function alike(value: number | string, theirs: string | undefined): string {
  if (typeof value === "string") return value;
  const given = /^[-+]?\d*(?:\.(\d+))?$/.exec(theirs ?? "");
  if (!given || !theirs) return figures(value);
  const least = value === 0 ? 0 : Math.max(0, 2 - Math.floor(Math.log10(Math.abs(value))));
  return grouped(value.toFixed(Math.min(6, Math.max(given[1]?.length ?? 0, least))));
}

/** Thin spaces between thousands from 10 000 on, and a real minus. */
function grouped(text: string): string {
  if (!/^[-+]?\d*\.?\d*$/.test(text)) return text;
  const [whole = "", part] = text.replace("-", "").split(".");
  const sign = text.startsWith("-") ? MINUS : "";
  const spaced = whole.length > 4 ? whole.replace(/\B(?=(\d{3})+$)/g, " ") : whole;
  return sign + (part === undefined ? spaced : `${spaced}.${part}`);
}

/** A relative deviation in percent, with its sign. */
export function percent(deviation: number): string {
  const value = 100 * deviation;
  const size = Math.abs(value);
  if (size < 0.05) return "0.0 %";
  const text = size >= 1000 ? Math.round(size / 100).toString() + "×" : size.toFixed(size >= 99.95 ? 0 : 1) + " %";
  return (value < 0 ? MINUS : "+") + text;
}

/** A count with its word, which takes an s but for one of them. */
export const counted = (count: number, word: string): string => `${String(count)} ${word}${count === 1 ? "" : "s"}`;

/** Units as people write them. */
export function unitLabel(unit: string): string {
  return unit.replace("*", " ").replace("^2", "²");
}

interface Given {
  unit: string;
  theirs: { value: number | string; text: string; unit: string } | null;
}

/** Whether theirs was written in our unit, so that it can be shown as it was written. */
export const inOurUnit = (check: Given): boolean => !check.theirs?.unit || check.theirs.unit === unitLabel(check.unit);

/** Theirs in our unit, as it was written where it was written in it. */
export function theirsText(check: Given): string {
  if (!check.theirs) return "–";
  return inOurUnit(check) && check.theirs.text ? grouped(check.theirs.text) : alike(check.theirs.value, undefined);
}

/** A value of ours, to as many decimals as theirs. */
export const oursText = (value: number | string, check: Given): string =>
  alike(value, inOurUnit(check) ? check.theirs?.text : undefined);
