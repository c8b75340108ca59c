import { Select } from "@mantine/core";
import type { Across, Brief, System } from "../../shared/api/client";
import { SymbolText } from "../../shared/Symbol";
import { strings } from "./strings";
import css from "./Irregularities.module.css";

type Types = NonNullable<System["irregularities"]>;

const IN_PLAN: [keyof Types & string, string][] = [
  ["torsional", "torsional"],
  ["extreme_torsional", strings.extremeTorsional],
  ["reentrant_corner", strings.reEntrantCorner],
  ["diaphragm_discontinuity", strings.diaphragmDiscontinuity],
  ["out_of_plane_offset", strings.outOfPlaneOffset],
  ["nonparallel_systems", strings.nonparallelSystems],
];
const IN_HEIGHT: [keyof Types & string, string][] = [
  ["soft_story", strings.softStory],
  ["extreme_soft_story", strings.extremeSoftStory],
  ["mass", "mass"],
  ["vertical_geometric", strings.verticalGeometry],
  ["in_plane_discontinuity", strings.inPlaneDiscontinuity],
  ["weak_story", strings.weakStory],
  ["extreme_weak_story", strings.extremeWeakStory],
];
const STATES = [
  { value: "open", label: strings.notTested },
  { value: "none", label: strings.none },
  { value: "there", label: strings.there },
];

interface Props {
  brief: Brief;
  change: (edit: (brief: Brief) => void) => void;
  across: Across | undefined;
}

/** Types of irregularity as the reviewer found them; "not tested" is not "none". What outlines show is next to. */
export function Irregularities({ brief, change, across }: Props) {
  const declared: Types = brief.system?.irregularities ?? {};
  const state = (type: string) => (declared[type] === undefined ? "open" : declared[type] ? "there" : "none");
  const set = (type: string, to: string | null) => {
    const next = Object.fromEntries(
      Object.entries({ ...declared, [type]: to === "open" || to === null ? undefined : to === "there" }).filter(
        ([, v]) => v !== undefined,
      ),
    ) as Types;
    change((b) => {
      b.system = { ...b.system, irregularities: Object.keys(next).length ? next : null };
    });
  };
  const shown = [
    ...new Set(
      (across?.editions ?? []).flatMap((e) =>
        e.tests
          .filter(
            (t) => t.group.startsWith("Irregularities") && t.basis && t.basis !== "as declared" && t.state === "there",
          )
          .map((t) => `${t.words}: ${t.basis}`),
      ),
    ),
  ];
  const column = (title: string, types: typeof IN_PLAN) => (
    <table className="plain irregularity-types">
      <thead>
        <tr>
          <th>{title}</th>
          <th>{strings.foundByTheReviewer}</th>
        </tr>
      </thead>
      <tbody>
        {types.map(([type, words]) => (
          <tr key={type}>
            <td>{words}</td>
            <td>
              <Select
                aria-label={strings.irregularity(words)}
                w={130}
                size="xs"
                allowDeselect={false}
                value={state(type)}
                data={STATES}
                onChange={(v) => {
                  set(type, v);
                }}
              />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
  const count = Object.keys(declared).length;
  return (
    <details className="system-parts" open={count > 0 || undefined}>
      <summary>
        {strings.irregularitiesByType}
        {count === 0 ? strings.noneAssessedYet : strings.assessed(count)}
      </summary>
      <div className={css["wrapRow"]}>
        {column(strings.inPlan, IN_PLAN)}
        {column(strings.inHeight, IN_HEIGHT)}
      </div>
      {shown.length > 0 && (
        <p className={`off ${css["spaced"] ?? ""}`}>
          {strings.outlinesAndStoriesShow}
          <SymbolText text={shown.join("; ")} />
        </p>
      )}
    </details>
  );
}
