import type { Check } from "../../shared/api/client";
import { GRAVITY } from "../../shared/gravity";

export type View = "acceleration" | "displacement" | "adrs";

/** Spectral displacement in mm of an ordinate in g at a period in s: S_a g (T / 2 pi)^2. */
export const displacement = (T: number, S_a: number): number => 1000 * S_a * GRAVITY * (T / (2 * Math.PI)) ** 2;

/** A point of the curve as the view draws it. */
export function asSeen(view: View, T: number, S_a: number): [number, number] {
  if (view === "acceleration") return [T, S_a];
  if (view === "displacement") return [T, displacement(T, S_a)];
  return [displacement(T, S_a), S_a];
}

/** Periods to draw our curve at: even steps on a logarithmic scale, the corners themselves, and zero. */
export function drawnPeriods(longest: number, corners: number[]): number[] {
  const from = 0.01;
  const count = 240;
  const even = Array.from({ length: count + 1 }, (_, i) => from * (longest / from) ** (i / count));
  return [...new Set([0, ...even, ...corners.filter((c) => c > 0 && c < longest)])].sort((a, b) => a - b);
}

export interface Submitted {
  T: number;
  S_a: number;
  check: Check;
}

/** Submitted points with the period that each is at; points without a period of their own are excluded. */
export function submittedPoints(checks: Check[], periods: number[]): Submitted[] {
  return checks.flatMap((check) => {
    const T = check.point === null ? undefined : periods[check.point];
    const value = check.theirs?.value;
    return check.quantity === "S_a" && T !== undefined && typeof value === "number" ? [{ T, S_a: value, check }] : [];
  });
}
