/** Drift of a story over time, mm: its floor against the floor below. */
export function driftOf(displacement: Record<string, number[]>, stories: string[], story: number): number[] {
  const upper = displacement[stories[story] ?? ""] ?? [];
  const lower = story > 0 ? (displacement[stories[story - 1] ?? ""] ?? []) : [];
  return upper.map((u, i) => 1000 * (u - (lower[i] ?? 0)));
}

export interface Peak {
  /** place in the trace */
  index: number;
  value: number;
}

/** The value farthest from zero; null of an empty trace. */
export function peakOf(values: number[]): Peak | null {
  let peak: Peak | null = null;
  values.forEach((value, index) => {
    if (!peak || Math.abs(value) > Math.abs(peak.value)) peak = { index, value };
  });
  return peak;
}

/** Least and greatest of the values that fall on each column of a picture: no peak is lost, however long the record. */
export function columns(values: number[], width: number): { from: number; least: number; most: number }[] {
  const count = Math.min(values.length, Math.max(1, Math.floor(width)));
  return Array.from({ length: count }, (_, c) => {
    const from = Math.floor((c * values.length) / count);
    const part = values.slice(from, Math.max(from + 1, Math.floor(((c + 1) * values.length) / count)));
    return { from, least: Math.min(...part), most: Math.max(...part) };
  });
}
