/** Bays as text: equal neighbours are counted ("3x6 8"). */
export function baysText(bays: readonly number[]): string {
  const parts: string[] = [];
  for (let i = 0; i < bays.length;) {
    let n = 1;
    while (bays[i + n] === bays[i]) n++;
    parts.push(n > 1 ? `${String(n)}x${String(bays[i])}` : String(bays[i]));
    i += n;
  }
  return parts.join(" ");
}

/** Bays from text; null for what cannot be read, at most a hundred of them. */
export function readBays(text: string): number[] | null {
  const bays: number[] = [];
  for (const part of text.trim().split(/[\s;]+/)) {
    const found = /^(?:(\d{1,3})\s*[x×*])?(\d+(?:[.,]\d+)?)$/i.exec(part);
    const width = Number(found?.[2]?.replace(",", "."));
    if (!found || !(width > 0)) return null;
    bays.push(...Array.from({ length: Number(found[1] ?? 1) }, () => width));
  }
  return bays.length > 0 && bays.length <= 100 ? bays : null;
}
