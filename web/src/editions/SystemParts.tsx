import { Select } from "@mantine/core";
import type { Brief, DirectionSystem, Edition } from "../shared/api/client";
import { RowsEditor, type Column, type Row } from "../shared/RowsEditor";
import { SymbolText } from "../shared/Symbol";
import { ValueInput } from "../shared/ValueInput";
import { give, given, type Change } from "./places";
import { strings } from "./strings";
import css from "./SystemParts.module.css";

interface Props {
  edition: Edition;
  brief: Brief;
  change: Change;
}

const system = (name: string) => ({ name, part: "system" }) as const;
const PARTS = ["stacked_systems", "beside_systems", "podium", "redundancy", "element_shears"] as const;
const TESTED = [
  { value: "yes", label: strings.yes },
  { value: "no", label: strings.no },
  { value: "open", label: strings.notTested },
];

/** What a direction has beside its one system: systems above and beside, a podium, what is known of its redundancy. */
export function SystemParts({ edition, brief, change }: Props) {
  const offered = PARTS.filter((name) => edition.inputs.some((i) => i.name === name));
  const stories = (brief.stories ?? []).map((s) => s.name);
  if (offered.length === 0 || stories.length === 0) return null;
  const hasParts = (["X", "Y"] as const).some((d) =>
    offered.some((name) => {
      const v = given(brief, edition.id, system(name), d);
      return v !== null && v !== undefined;
    }),
  );
  return (
    <details className="system-parts" open={hasParts || undefined}>
      <summary>{strings.systemsAboveAndBesideEach}</summary>
      {(["X", "Y"] as const).map((d) => (
        <OneWay key={d} d={d} offered={offered} stories={stories} edition={edition} brief={brief} change={change} />
      ))}
    </details>
  );
}

function OneWay({
  d,
  offered: offered,
  stories,
  edition,
  brief,
  change,
}: Props & { d: "X" | "Y"; offered: readonly string[]; stories: string[] }) {
  const value = (name: string) => given(brief, edition.id, system(name), d);
  const set = (name: string, to: unknown) => {
    change((b) => {
      give(b, edition.id, system(name), d, to);
    });
  };
  const list = (name: string) => ({
    rows: (value(name) as Row[] | null | undefined) ?? [],
    onChange: (rows: Row[]) => {
      set(name, rows.length ? rows : null);
    },
  });
  const story: Column = {
    name: "story",
    label: strings.story,
    spoken: strings.story,
    width: 100,
    required: true,
    options: stories.map((s) => ({ value: s, label: s })),
  };
  const from: Column = { ...story, name: "from_story", label: strings.fromStory, spoken: strings.storyItStartsAt };
  const which: Column = {
    name: "lateral_system",
    label: strings.system,
    spoken: strings.system,
    width: 300,
    required: true,
    options: edition.systems.map((s) => ({ value: s.id, label: s.title })),
  };
  const number = (name: string, symbol: string, spoken: string, more: Partial<Column> = {}): Column => ({
    name,
    label: <SymbolText text={symbol} />,
    spoken,
    width: 92,
    ...more,
  });
  const middle = stories[Math.floor(stories.length / 2)] ?? "";
  const redundancy = value("redundancy") as DirectionSystem["redundancy"];
  const setRedundancy = (to: Record<string, unknown>) => {
    const next = { ...redundancy, ...to };
    const empty =
      !next.stories?.length && (next.regular_in_plan ?? null) === null && (next.perimeter_bays ?? null) === null;
    set("redundancy", empty ? null : next);
  };
  const first = edition.systems[0]?.id ?? "";
  return (
    <section aria-label={strings.moreOfDirection(d)} className="one-way">
      <b>{d}</b>
      <div>
        {offered.includes("stacked_systems") && stories.length > 1 && (
          <RowsEditor
            what={strings.systemHigherUpIn(d)}
            columns={[
              from,
              which,
              {
                name: "exempt",
                label: strings.countsBelow,
                spoken: strings.whetherItCountsBelow,
                width: 170,
                placeholder: strings.yes,
                options: [
                  { value: "rooftop", label: strings.noRooftopStructure },
                  { value: "supported", label: strings.noLightSupported },
                ],
              },
            ]}
            fresh={{ from_story: middle, lateral_system: first }}
            {...list("stacked_systems")}
          />
        )}
        {offered.includes("beside_systems") && (
          <RowsEditor
            what={strings.systemBesideItIn(d)}
            columns={[which]}
            fresh={{ lateral_system: first }}
            {...list("beside_systems")}
          />
        )}
        {offered.includes("podium") && stories.length > 1 && (
          <RowsEditor
            what={strings.twoStagePodiumIn(d)}
            most={1}
            fresh={{ from_story: middle }}
            columns={[
              { ...from, label: strings.upperPartFrom, spoken: strings.storyTheUpperPartStarts },
              number("stiffness_ratio", strings.stiffnessLowerUpper, strings.stiffnessOfTheLowerOver, {
                width: 150,
              }),
              number("T_whole", strings.tWhole, strings.periodOfTheWhole, { unit: "s" }),
              number("T_upper", strings.tUpper, strings.periodOfTheUpperPart, { unit: "s", required: true }),
              number("R_upper", strings.rUpper, strings.rOfTheUpperPart, { required: true }),
              number("rho_upper", strings.upper, strings.redundancyFactorOfTheUpper),
              number("T_lower", strings.tLower, strings.periodOfTheLowerPart, { unit: "s" }),
            ]}
            rows={value("podium") ? [value("podium") as Row] : []}
            onChange={(rows) => {
              set("podium", rows[0] ?? null);
            }}
          />
        )}
        {offered.includes("redundancy") && (
          <>
            <RowsEditor
              what={strings.elementRemovedForTheRedundancy(d)}
              fresh={{ element: "wall" }}
              rows={redundancy?.stories ?? []}
              onChange={(stories) => {
                setRedundancy({ stories });
              }}
              columns={[
                story,
                number("shear_share", strings.storyShearV, strings.storyShearOverBaseShear, {
                  required: true,
                  width: 120,
                }),
                {
                  name: "element",
                  label: strings.element,
                  spoken: strings.element,
                  width: 150,
                  required: true,
                  options: [
                    { value: "brace", label: strings.brace },
                    { value: "moment_frame", label: strings.momentFrame },
                    { value: "wall", label: strings.wall },
                    { value: "cantilever_column", label: strings.cantileverColumn },
                    { value: "other", label: strings.other },
                  ],
                },
                number("strength_loss", strings.lossOfStoryStrength, strings.shareOfTheStoryStrength, {
                  width: 150,
                  placeholder: strings.notTested,
                }),
                {
                  name: "extreme_torsion",
                  label: strings.extremeTorsionWithoutIt,
                  spoken: strings.extremeTorsionWithoutIt,
                  width: 120,
                  tested: true,
                },
              ]}
            />
            <div className={`fields ${css["width"] ?? ""}`}>
              <Select
                label={strings.regularInPlanAtAll}
                allowDeselect={false}
                value={
                  redundancy?.regular_in_plan === true ? "yes" : redundancy?.regular_in_plan === false ? "no" : "open"
                }
                data={TESTED}
                aria-label={strings.regularInPlanIn(d)}
                onChange={(v) => {
                  setRedundancy({ regular_in_plan: v === "open" ? null : v === "yes" });
                }}
              />
              <ValueInput
                label={strings.smallestNumberOfBaysOn}
                aria-label={strings.smallestBaysIn(d)}
                placeholder={strings.notEntered}
                value={redundancy?.perimeter_bays}
                onCommit={(v) => {
                  setRedundancy({ perimeter_bays: v });
                }}
              />
            </div>
          </>
        )}
        {offered.includes("element_shears") && (
          <RowsEditor
            what={strings.elementShearIn(d)}
            fresh={{ element: "wall" }}
            {...list("element_shears")}
            columns={[
              story,
              {
                name: "element",
                label: strings.element,
                spoken: strings.element,
                width: 150,
                required: true,
                options: [
                  { value: "brace", label: strings.brace },
                  { value: "moment_frame", label: strings.momentFrameBay },
                  { value: "wall", label: strings.wall },
                ],
              },
              number("shear", strings.shear, strings.shearOfTheElement, { unit: "kN", required: true, width: 110 }),
              number("story_shear", strings.storyShear, strings.storyShear, { unit: "kN", required: true, width: 110 }),
              number("length", strings.wallLength, strings.lengthOfTheWall, { unit: "m" }),
            ]}
          />
        )}
      </div>
    </section>
  );
}
