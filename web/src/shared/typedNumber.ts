/** A number as people type it, with a point or a comma; null for an empty field, undefined for no number. */
export function typedNumber(text: string): number | null | undefined {
  const plain = text
    .trim()
    .replace(/\s/g, "")
    .replace("−", "-")
    .replace(/^(-?\d*),(\d+)$/, "$1.$2");
  if (plain === "") return null;
  return /^-?(\d+\.?\d*|\.\d+)(e-?\d+)?$/i.test(plain) ? Number(plain) : undefined;
}
