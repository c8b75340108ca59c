import type { Sensitivity } from "../../shared/api/client";

/** Both sides of an input in one row of the chart. */
export interface Effect {
  input: string;
  sides: { variant: Sensitivity; change: number; symbol: string }[];
  greatest: number;
}

/** The change of a variant that is greatest in size, with the value that has it. */
export function greatest(variant: Sensitivity): { change: number; symbol: string } {
  let found = { change: 0, symbol: "" };
  for (const value of variant.values)
    if (Math.abs(value.change) > Math.abs(found.change))
      found = { change: value.change, symbol: `${value.symbol} ${value.direction}` };
  return found;
}

/** The inputs with their variants, by the greatest effect of any of them. */
export function effectsOf(variants: readonly Sensitivity[]): Effect[] {
  const by = new Map<string, Effect>();
  for (const variant of variants) {
    const effect = by.get(variant.input) ?? { input: variant.input, sides: [], greatest: 0 };
    const side = { variant, ...greatest(variant) };
    effect.sides.push(side);
    effect.greatest = Math.max(effect.greatest, Math.abs(side.change));
    by.set(variant.input, effect);
  }
  return [...by.values()].sort((a, b) => b.greatest - a.greatest);
}

/** Change as a length of the chart, -1 to 1: those beyond the greatest end at its edge. */
export const lengthOf = (change: number, most: number): number =>
  most === 0 ? 0 : Math.max(-1, Math.min(1, change / most));
