import { Checkbox, Select } from "@mantine/core";
import type { Frame } from "../../shared/api/client";
import { counted } from "../../shared/numbers";
import { ValueInput } from "../../shared/ValueInput";
import { factorOf, groupsOf, REDUCED, withFactor } from "./frameOptions";
import { strings } from "./strings";
import css from "./FrameOptions.module.css";

interface Props {
  frame: Frame;
  /** whether the grid builder made it, which sets the factors of its groups again when it is taken */
  fromGrid: boolean;
  change: (edit: Partial<Frame>) => void;
}

type TensionOnly = NonNullable<Frame["tension_only"]>;

/** Modelling options: cracked stiffness by group, members that only take tension, and where its mass comes from. */
export function FrameOptions({ frame, fromGrid, change }: Props) {
  const groups = groupsOf(frame);
  const slack = frame.members.filter((m) => m.axial === "tension_only").length;
  return (
    <section aria-label={strings.modellingOptions}>
      <h3 className="part">{strings.modellingOptions}</h3>
      <div className={css["wrapRow"]}>
        {groups.length > 0 && (
          <div>
            <table className={`plain ${css["width"] ?? ""}`} aria-label={strings.crackedStiffnessByGroup}>
              <thead>
                <tr>
                  <th>{strings.crackedStiffnessOf}</th>
                  <th className="n">{strings.members}</th>
                  {REDUCED.map(([key, title]) => (
                    <th key={key}>{title}</th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {groups.map((g) => (
                  <tr key={g.name}>
                    <td>{g.name}</td>
                    <td className="n">{g.count}</td>
                    {REDUCED.map(([key, title]) => (
                      <td key={key}>
                        <ValueInput
                          aria-label={strings.factorOnOf(title, g.name)}
                          w={76}
                          value={factorOf(frame, g.name, key)}
                          onCommit={(v) => {
                            change({ stiffness_factors: withFactor(frame, g.name, key, v ?? 1) });
                          }}
                        />
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
            {fromGrid && <p className={`quiet ${css["smallLine"] ?? ""}`}>{strings.applyingTheGridAgainResets}</p>}
          </div>
        )}
        <div className={css["grid"]}>
          {slack > 0 && (
            <Select
              label={strings.forTensionOnly(counted(slack, "member"))}
              w={330}
              allowDeselect={false}
              value={frame.tension_only ?? "half"}
              data={[
                { value: "half", label: strings.halfTheirStiffnessForPairs },
                { value: "both", label: strings.inTensionAndCompressionToo },
                { value: "none", label: strings.excludedTheSoftestAssumption },
              ]}
              onChange={(v) => {
                change({ tension_only: v as TensionOnly });
              }}
            />
          )}
          <Checkbox
            label={strings.includeTheMassOfMembers}
            checked={frame.member_mass ?? false}
            onChange={(e) => {
              change({ member_mass: e.currentTarget.checked });
            }}
          />
          <Checkbox
            label={strings.itAlsoActsVertically}
            disabled={!frame.member_mass}
            checked={frame.vertical_mass ?? true}
            onChange={(e) => {
              change({ vertical_mass: e.currentTarget.checked });
            }}
          />
          <Checkbox
            label={strings.massBetweenFloorsIsAssigned}
            checked={frame.concentrate ?? false}
            onChange={(e) => {
              change({ concentrate: e.currentTarget.checked });
            }}
          />
        </div>
      </div>
    </section>
  );
}
