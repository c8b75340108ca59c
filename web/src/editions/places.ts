import type { Brief, EditionInput } from "../shared/api/client";

/** What a field holds; structured inputs (walls, curves) have editors of their own. */
export type FieldValue = number | string | boolean | null | undefined;

/** A way to change the brief: `edit` gets a copy to write into. */
export type Change = (edit: (brief: Brief) => void) => void;

type Parts = Record<string, Record<string, unknown> | undefined>;

/** The part of a brief that an edition has to itself: the brief itself for the governing one. */
function own(brief: Brief, edition: string): Parts {
  return (edition === brief.edition ? brief : (brief.comparisons?.[edition] ?? {})) as Parts;
}

/** The value of an input under an edition, as it was given there. */
export function given(
  brief: Brief,
  edition: string,
  input: Pick<EditionInput, "name" | "part">,
  direction: string | null,
): unknown {
  const parts = own(brief, edition);
  if (input.part === "brief") return (parts as Record<string, unknown>)[input.name];
  const part = parts[input.part];
  return direction ? (part?.[direction] as Record<string, unknown> | undefined)?.[input.name] : part?.[input.name];
}

/** Write the value of an input under an edition into a copy of the brief. */
export function give(
  brief: Brief,
  edition: string,
  input: Pick<EditionInput, "name" | "part">,
  direction: string | null,
  value: unknown,
) {
  let target = brief as unknown as Record<string, unknown>;
  const into = (key: string) => {
    target[key] = { ...(target[key] as Record<string, unknown> | undefined) };
    target = target[key] as Record<string, unknown>;
  };
  if (edition !== brief.edition) {
    into("comparisons");
    into(edition);
  }
  if (input.part !== "brief") into(input.part);
  if (direction) into(direction);
  target[input.name] = value === "" ? null : value;
}

/** Take an edition into the comparison, or out of it; what was given for it stays until it is removed. */
export function compareWith(brief: Brief, editions: string[]) {
  brief.comparison_editions = editions;
  brief.comparisons = Object.fromEntries(
    Object.entries(brief.comparisons ?? {}).filter(([id]) => editions.includes(id)),
  );
}
