import type { Brief, Edition } from "../../shared/api/client";
import { strings } from "./strings";

/** An input of the brief that can be otherwise. */
export interface Input {
  name: string;
  words: string;
  /** its place in the brief */
  at: string[];
  unit: string;
  form: "number" | "choice" | "flag";
  options: { value: string; label: string }[];
  value: unknown;
}

const at = (document: unknown, path: readonly string[]): unknown =>
  path.reduce<unknown>(
    (part, name) => (typeof part === "object" && part !== null ? (part as Record<string, unknown>)[name] : undefined),
    document,
  );

const DIRECTIONS = ["X", "Y"] as const;

/** The inputs that a what-if offers: numbers, choices and flags of the edition, and the periods of the analysis. */
export function inputsOf(edition: Edition, brief: Brief): Input[] {
  const offered = edition.inputs.flatMap((input): Input[] => {
    const { part, form, name } = input;
    if (form === "data" || form === "text") return [];
    const place = part === "brief" ? [] : [part];
    const options = input.options.map((o, i) => ({ value: String(o), label: input.option_words[i] || String(o) }));
    const kind = options.length > 0 ? "choice" : form === "flag" || form === "yes_no" ? "flag" : "number";
    const made = (path: string[], words: string): Input => ({
      name: path.join("."),
      words,
      at: path,
      unit: input.unit,
      form: kind,
      options,
      value: at(brief, path),
    });
    return input.per_direction
      ? DIRECTIONS.map((d) => made([...place, d, name], strings.direction(input.meaning, d)))
      : [made([...place, name], input.meaning)];
  });
  const periods = DIRECTIONS.map((d): Input => ({
    name: `period.${d}.analysis`,
    words: strings.direction("Period of the analysis", d),
    at: ["period", d, "analysis"],
    unit: "s",
    form: "number",
    options: [],
    value: at(brief, ["period", d, "analysis"]),
  }));
  return [...offered, ...periods];
}

/** The value that was typed or chosen, as the brief has it; none where it is none. */
export function valueOf(input: Input, typed: string): unknown {
  if (typed === "") return undefined;
  if (input.form === "flag") return typed === "yes";
  if (input.form === "choice") {
    const given = input.value;
    return typeof given === "number" || (given === undefined && /^\d+$/.test(typed)) ? Number(typed) : typed;
  }
  const number = Number(typed.replace(",", "."));
  return Number.isFinite(number) ? number : undefined;
}

export const shownValue = (value: unknown): string => {
  if (value === undefined || value === null) return strings.notGiven;
  if (typeof value === "boolean") return value ? strings.yes : strings.no;
  if (typeof value === "number") return String(Number(value.toPrecision(5)));
  return typeof value === "string" ? value : "…";
};
