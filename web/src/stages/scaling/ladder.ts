import type { Check, Recheck } from "../../shared/api/client";
import { figures, percent } from "../../shared/numbers";
import { strings } from "./strings";

type Shears = NonNullable<NonNullable<Recheck["stages"]["scaling"]>["X"]>;

/** A rung of the ladder: one base shear, ours or theirs, with what there is to say about it. */
export interface Rung {
  name: string;
  side: "ours" | "theirs";
  value: number;
  says: string;
  /** the origins of its deviation: id, label and meaning */
  origins: { id: string; label: string; meaning: string }[];
  check: string | undefined;
  /** whether it lies outside what it has to be */
  out: boolean;
}

const statedText = (check: Check | undefined): string => {
  if (!check) return "";
  if (check.verdict === "agrees") return "agrees";
  const off = check.shown ? check[check.shown]?.deviation : null;
  const where = check.role === "inherited" ? strings.inheritedFrom : strings.origin;
  return [off === null || off === undefined ? "" : percent(off), check.role ? where : ""].filter(Boolean).join(", ");
};

/** An origin with its label and, for the pointer, its meaning in words. */
function originOf(origin: Check | undefined, id: string) {
  const place = [origin?.direction, origin?.story].filter(Boolean).join(" ");
  return { id, label: origin?.label ?? id, meaning: origin ? `${origin.meaning} ${place}`.trim() : id };
}

/** The base shears of a direction in the order in which each is computed from the previous one. */
export function rungs(shears: Shears, checks: Check[]): Rung[] {
  const byId = new Map(checks.map((c) => [c.id, c]));
  const of = (name: string) => checks.find((c) => c.id === shears.checks[name]);
  const factor = of("factor");
  const rung = (
    name: string,
    side: Rung["side"],
    value: number | null,
    check: Check | undefined,
    says: string,
  ): Rung[] =>
    value === null
      ? []
      : [
          {
            name,
            side,
            value,
            says,
            origins: check?.role === "inherited" ? check.rests_on.map((id) => originOf(byId.get(id), id)) : [],
            check: check?.id,
            out: side === "theirs" && (check?.verdict === "differs" || check?.verdict === "breaches"),
          },
        ];
  const after = shears.after_theirs;
  const afterCheck = factor?.verdict === "breaches" ? factor : (of("after") ?? factor);
  const short = after !== null && shears.floor !== null && after < shears.floor * 0.9995;
  return [
    ...rung(strings.staticOurs, "ours", shears.static_ours, undefined, ""),
    ...rung(strings.staticTheirs, "theirs", shears.static_theirs, of("static"), statedText(of("static"))),
    ...rung(strings.modalBeforeOurs, "ours", shears.before_ours, undefined, strings.theirModesOurCurveShare),
    ...rung(strings.modalBeforeOurModel, "ours", shears.before_model, undefined, strings.responseOfTheReferenceModel),
    ...rung(strings.modalBeforeTheirs, "theirs", shears.before_theirs, of("before"), statedText(of("before"))),
    ...rung(
      strings.afterTheirs,
      "theirs",
      after,
      afterCheck,
      [
        shears.factor_used === null ? "" : strings.before(figures(shears.factor_used)),
        short ? strings.belowTheRequiredBaseShear : "",
        afterCheck?.role === "inherited" ? strings.inheritedFrom : "",
      ]
        .filter(Boolean)
        .join(", "),
    ),
  ];
}
