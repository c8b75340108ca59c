import { Select } from "@mantine/core";
import type { Brief, DirectionSystem, System } from "../../shared/api/client";
import { ValueInput } from "../../shared/ValueInput";
import { strings } from "./strings";

type Infills = NonNullable<System["infills"]>;
type Spans = NonNullable<System["diaphragm_spans"]>;
type Share = "plane_share" | "frame_share" | "wall_share" | "axial_share";

interface Props {
  brief: Brief;
  change: (edit: (brief: Brief) => void) => void;
  /** names of the inputs that the editions of this review take */
  inputs: Set<string>;
}

const SHARES: [Share, string, string][] = [
  ["plane_share", strings.greatestShareInOnePlane, strings.greatestShareOfTheLateral],
  ["frame_share", strings.shareOfTheMomentFrames, strings.leastShareOfTheBase],
  ["wall_share", strings.shareOfTheWalls, strings.shareOfTheBaseShear],
  ["axial_share", strings.axialLoadOfCantileverColumns, strings.greatestAxialLoadOfA],
];
const YES_NO = [
  { value: "yes", label: strings.yes },
  { value: "no", label: strings.no },
  { value: "open", label: strings.notTested },
];
const CONSTRUCTIONS = [
  { value: "concrete", label: strings.concrete },
  { value: "precast", label: strings.precastConcrete },
  { value: "wood", label: strings.woodStructuralPanels },
  { value: "untopped_steel_deck", label: strings.untoppedSteelDeck },
  { value: "other", label: strings.other },
];
const filled = (part: object) => Object.values(part).some((v) => v !== null && v !== undefined);

/** Conditions that decide which checks apply: declared here, whichever edition requires them. */
export function Conditions({ brief, change, inputs }: Props) {
  const system = brief.system;
  const building = (edit: Partial<System>) => {
    change((b) => {
      b.system = { ...b.system, ...edit };
    });
  };
  const setInfills = (edit: Partial<Infills>) => {
    building({ infills: { ...system?.infills, ...edit } });
  };
  const setSpans = (edit: Partial<Spans>) => {
    const next = { ...system?.diaphragm_spans, ...edit };
    building({ diaphragm_spans: filled(next) ? next : null });
  };
  const shares = SHARES.filter(([name]) => inputs.has(name));
  const stories = (brief.stories ?? []).map((s) => s.name);
  const tested = (name: "shared_columns" | "symmetric_in_plan", label: string, why: string) =>
    inputs.has(name) && (
      <Select
        label={label}
        title={why}
        allowDeselect={false}
        value={system?.[name] === true ? "yes" : system?.[name] === false ? "no" : "open"}
        data={YES_NO}
        onChange={(v) => {
          building({ [name]: v === "open" ? null : v === "yes" });
        }}
      />
    );
  const infills = system?.infills;
  const spans = system?.diaphragm_spans;
  return (
    <>
      <h3 className="part">{strings.conditionsOfTheChecks}</h3>
      <div className="fields">
        <Select
          label={strings.secondOrderEffects}
          title={strings.whetherTheAnalysisBehindThe}
          clearable
          placeholder={strings.asStatedInTheSubmission}
          value={brief.second_order ?? null}
          data={["included", strings.notIncluded]}
          onChange={(v) => {
            change((b) => {
              b.second_order = v as Brief["second_order"];
            });
          }}
        />
        <Select
          label={strings.driftsAreComparedAt}
          title={strings.whereTheStoryDriftsAre}
          clearable
          placeholder={strings.asTheCodeRequires}
          value={brief.drift_at ?? null}
          data={[
            { value: "centre", label: strings.theCentreOfMass },
            { value: "edges", label: strings.theGreaterEdge },
          ]}
          onChange={(v) => {
            change((b) => {
              b.drift_at = v;
            });
          }}
        />
        {tested("shared_columns", strings.sharedColumns, strings.whetherAnyColumnOrWall)}
        {tested("symmetric_in_plan", strings.symmetricInPlan, strings.stiffnessAndMassApproximatelySymmetric)}
      </div>
      {shares.length > 0 && (
        <table className="plain by-direction">
          <thead>
            <tr>
              <th />
              {shares.map(([name, words, why]) => (
                <th key={name} title={why}>
                  {words}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {(["X", "Y"] as const).map((d) => (
              <tr key={d}>
                <td>
                  <b>{d}</b>
                </td>
                {shares.map(([name, words]) => (
                  <td key={name}>
                    <ValueInput
                      aria-label={`${words} ${d}`}
                      w={130}
                      unit="%"
                      placeholder={strings.notEntered}
                      value={percentOf(system?.[d], name)}
                      onCommit={(v) => {
                        building({ [d]: { ...system?.[d], [name]: v === null ? null : v / 100 } });
                      }}
                    />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {inputs.has("diaphragm_spans") && (
        <details className="system-parts" open={Boolean(spans) || undefined}>
          <summary>
            {strings.diaphragms}
            {spans ? strings.entered : strings.assumedRigid}
          </summary>
          <div className="fields">
            <Select
              label={strings.construction}
              clearable
              placeholder={strings.notEntered}
              value={spans?.construction ?? null}
              data={CONSTRUCTIONS}
              onChange={(v) => {
                setSpans({ construction: v as Spans["construction"] });
              }}
            />
            <ValueInput
              label={strings.greatestSpanOverDepth}
              placeholder={strings.notEntered}
              value={spans?.span_to_depth}
              onCommit={(v) => {
                setSpans({ span_to_depth: v });
              }}
            />
            <ValueInput
              label={strings.inPlaneDeflectionOverStory}
              placeholder={strings.notEntered}
              value={spans?.deflection_ratio}
              onCommit={(v) => {
                setSpans({ deflection_ratio: v });
              }}
            />
            <ValueInput
              label={strings.rSAlternativeForces}
              placeholder={strings.notUsed}
              value={spans?.R_s}
              onCommit={(v) => {
                setSpans({ R_s: v });
              }}
            />
          </div>
        </details>
      )}
      {inputs.has("infills") && (
        <details className="system-parts" open={Boolean(infills) || undefined}>
          <summary>
            {strings.masonryInfills}
            {infills ? (infills.plan ?? strings.regular) : strings.noneDeclared}
          </summary>
          <div className="fields">
            <Select
              label={strings.arrangementInPlan}
              clearable
              placeholder={strings.noInfills}
              value={infills ? (infills.plan ?? "regular") : null}
              data={[
                { value: "regular", label: strings.regular },
                { value: "irregular", label: strings.irregular },
                { value: "severe", label: strings.severelyIrregular },
              ]}
              onChange={(v) => {
                if (v === null) building({ infills: null });
                else setInfills({ plan: v });
              }}
            />
            {infills && (
              <>
                <Select
                  label={strings.storyWithFewerInfills}
                  clearable
                  placeholder={strings.none}
                  value={infills.open_story ?? null}
                  data={stories}
                  onChange={(v) => {
                    setInfills({ open_story: v });
                  }}
                />
                {infills.open_story &&
                  OPEN_STORY.map(([name, label, unit]) => (
                    <ValueInput
                      key={name}
                      label={label}
                      {...(unit ? { unit } : {})}
                      placeholder={strings.notEntered}
                      value={infills[name]}
                      onCommit={(v) => {
                        setInfills({ [name]: v });
                      }}
                    />
                  ))}
              </>
            )}
          </div>
        </details>
      )}
    </>
  );
}

const OPEN_STORY = [
  ["strength_reduction", strings.resistanceLostInThatStory, "kN"],
  ["story_shear", strings.seismicShearOfThatStory, "kN"],
  ["stiffness_ratio", strings.itsStiffnessOverTheStory, ""],
  ["strength_ratio", strings.itsStrengthOverTheStory, ""],
  ["wall_density", strings.structuralWallsOverFloorArea, ""],
] as const;

function percentOf(system: DirectionSystem | null | undefined, name: Share): number | null {
  const share = system?.[name];
  return share === null || share === undefined ? null : Number((100 * share).toPrecision(10));
}
