import { Select } from "@mantine/core";
import type { Brief, DirectionSystem, System } from "../../shared/api/client";
import { ValueInput } from "../../shared/ValueInput";

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
  ["plane_share", "greatest share in one plane", "Greatest share of the lateral force in one plane of frames or walls"],
  [
    "frame_share",
    "share of the moment frames",
    "Least share of the base shear that the moment frames of a dual system resist",
  ],
  ["wall_share", "share of the walls", "Share of the base shear at the base that walls resist"],
  [
    "axial_share",
    "axial load of cantilever columns",
    "Greatest axial load of a cantilever column over its axial strength",
  ],
];
const YES_NO = [
  { value: "yes", label: "yes" },
  { value: "no", label: "no" },
  { value: "open", label: "not tested" },
];
const CONSTRUCTIONS = [
  { value: "concrete", label: "concrete" },
  { value: "precast", label: "precast concrete" },
  { value: "wood", label: "wood structural panels" },
  { value: "untopped_steel_deck", label: "untopped steel deck" },
  { value: "other", label: "other" },
];
const filled = (part: object) => Object.values(part).some((v) => v !== null && v !== undefined);

/** Conditions that decide which checks apply: declared here, whichever edition asks for them. */
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
      <h3 className="part">Conditions of the checks</h3>
      <div className="fields">
        <Select
          label="Second order effects"
          title="Whether they are in the analysis that gave the submitted drifts"
          clearable
          placeholder="as the submission says"
          value={brief.second_order ?? null}
          data={["included", "not included"]}
          onChange={(v) => {
            change((b) => {
              b.second_order = v as Brief["second_order"];
            });
          }}
        />
        <Select
          label="Drifts are taken at"
          title="Where the story drifts are taken that are compared with their limit"
          clearable
          placeholder="as the code says"
          value={brief.drift_at ?? null}
          data={[
            { value: "centre", label: "the centre of mass" },
            { value: "edges", label: "the greater edge" },
          ]}
          onChange={(v) => {
            change((b) => {
              b.drift_at = v as Brief["drift_at"];
            });
          }}
        />
        {tested("shared_columns", "Shared columns", "Whether any column or wall is part of two intersecting systems")}
        {tested("symmetric_in_plan", "Symmetric in plan", "Stiffness and mass approximately symmetric about both axes")}
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
                      placeholder="not given"
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
          <summary>Diaphragms: {spans ? "given" : "assumed rigid"}</summary>
          <div className="fields">
            <Select
              label="Construction"
              clearable
              placeholder="not given"
              value={spans?.construction ?? null}
              data={CONSTRUCTIONS}
              onChange={(v) => {
                setSpans({ construction: v as Spans["construction"] });
              }}
            />
            <ValueInput
              label="Greatest span over depth"
              placeholder="not given"
              value={spans?.span_to_depth}
              onCommit={(v) => {
                setSpans({ span_to_depth: v });
              }}
            />
            <ValueInput
              label="In-plane deflection over story drift"
              placeholder="not given"
              value={spans?.deflection_ratio}
              onCommit={(v) => {
                setSpans({ deflection_ratio: v });
              }}
            />
            <ValueInput
              label="R_s, alternative forces"
              placeholder="not used"
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
          <summary>Masonry infills: {infills ? (infills.plan ?? "regular") : "none declared"}</summary>
          <div className="fields">
            <Select
              label="Arrangement in plan"
              clearable
              placeholder="no infills"
              value={infills ? (infills.plan ?? "regular") : null}
              data={[
                { value: "regular", label: "regular" },
                { value: "irregular", label: "irregular" },
                { value: "severe", label: "severely irregular" },
              ]}
              onChange={(v) => {
                if (v === null) building({ infills: null });
                else setInfills({ plan: v as "regular" | "irregular" | "severe" });
              }}
            />
            {infills && (
              <>
                <Select
                  label="Story with fewer infills"
                  clearable
                  placeholder="none"
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
                      placeholder="not given"
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
  ["strength_reduction", "Resistance lost in that story", "kN"],
  ["story_shear", "Seismic shear of that story", "kN"],
  ["stiffness_ratio", "Its stiffness over the story above", ""],
  ["strength_ratio", "Its strength over the story above", ""],
  ["wall_density", "Structural walls over floor area", ""],
] as const;

function percentOf(system: DirectionSystem | null | undefined, name: Share): number | null {
  const share = system?.[name];
  return share === null || share === undefined ? null : Number((100 * share).toPrecision(10));
}
