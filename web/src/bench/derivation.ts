import type { Step } from "../shared/api/client";
import { figures, unitLabel } from "../shared/numbers";
import { strings } from "./strings";

const MARK = /\\q\{(\w+)\}/g;

/** Steps by id, with the names that equations of a direction refer to resolved. */
export class Steps {
  private readonly byId: Map<string, Step>;

  constructor(steps: readonly Step[]) {
    this.byId = new Map(steps.map((s) => [s.id, s]));
  }

  get(id: string): Step | undefined {
    return this.byId.get(id);
  }

  /** The step of a quantity as another step sees it: in its own direction first, in the building next. */
  named(name: string, beside: Step): Step | undefined {
    if (name === beside.quantity) return beside;
    return (beside.direction ? this.byId.get(`${name}.${beside.direction}`) : undefined) ?? this.byId.get(name);
  }
}

/** What was given is shown as it was given, what was computed with four digits. */
const shown = (value: number, source: Step["source"]) =>
  source === "rule"
    ? figures(value)
    : figures(
        value,
        Math.min(
          6,
          Math.max(
            1,
            Number(value.toPrecision(6))
              .toString()
              .replace(/^0\.0*|\D/g, "")
              .replace(/0+$/, "").length,
          ),
        ),
      );

export function texNumber(step: Pick<Step, "value" | "source">, value = step.value): string | null {
  if (typeof value === "number") return shown(value, step.source).replaceAll(" ", "\\:").replace("−", "-");
  if (typeof value === "string") return `\\text{${value.replaceAll("_", "\\_")}}`;
  return null;
}

/** The rule's equation in symbols. */
export function symbolic(step: Step, steps: Steps): string {
  return step.tex.replace(MARK, (_, name: string) => braced(steps.named(name, step)?.symbol_tex ?? `\\text{${name}}`));
}

/** In braces, so that a command before it does not swallow a letter (\times W). */
const braced = (tex: string) => `{${tex}}`;

/** The right side of the rule's equation with numbers instead of symbols; null where nothing changes. */
export function substituted(step: Step, steps: Steps): string | null {
  const right = step.tex.slice(step.tex.indexOf("=") + 1);
  const numbers: string[] = [];
  const text = right.replace(MARK, (_, name: string) => {
    const found = steps.named(name, step);
    const number = found && found !== step ? texNumber(found) : null;
    if (number !== null) numbers.push(number);
    return number ?? braced(found?.symbol_tex ?? `\\text{${name}}`);
  });
  // symbols side by side are multiplied; numbers side by side would be read as one
  return numbers.length > 0 ? text.replace(/([\d}])\s*\\,\s*(?=[\d\\(])/g, "$1 \\times ") : null;
}

/** A step's value in words, for a story or point of it where it is a list. */
export function valueText(step: Step, index: number | null): string {
  if (Array.isArray(step.value)) {
    const value = index === null ? undefined : step.value[index];
    if (value === null) return strings.noLimit;
    return value === undefined ? strings.values(step.value.length) : shown(value, step.source);
  }
  if (step.value === null) return strings.noLimit;
  return typeof step.value === "number" ? shown(step.value, step.source) : figures(step.value);
}

export function withUnit(text: string, unit: string): string {
  return unit ? `${text} ${unitLabel(unit)}` : text;
}
