import { Checkbox, Select } from "@mantine/core";
import type { ReferenceModel } from "../../shared/api/client";
import { ValueInput } from "../../shared/ValueInput";
import { strings } from "./strings";
import css from "./AnalysisFields.module.css";

interface Props {
  model: ReferenceModel;
  change: (edit: (model: ReferenceModel) => void) => void;
}

type Analysis = NonNullable<ReferenceModel["analysis"]>;

/** How the reference model is solved and its modes are combined. */
export function AnalysisFields({ model, change }: Props) {
  const a: Partial<Analysis> = model.analysis ?? {};
  const set = (edit: Partial<Analysis>) => {
    change((m) => {
      m.analysis = { ...m.analysis, ...edit };
    });
  };
  return (
    <section aria-label={strings.analysis}>
      <h3 className="part">{strings.analysis}</h3>
      <div className={`fields ${css["width"] ?? ""}`}>
        <Select
          label={strings.modesBy}
          allowDeselect={false}
          value={a.method ?? "eigen"}
          data={[
            { value: "eigen", label: strings.eigenSolution },
            { value: "ritz", label: strings.loadDependentRitz },
          ]}
          onChange={(v) => {
            set({ method: v as "eigen" | "ritz" });
          }}
        />
        <ValueInput
          label={strings.numberOfModes}
          placeholder={model.use === "frame" ? strings.to90InEachDirection : strings.allModes}
          value={a.modes}
          onCommit={(v) => {
            set({ modes: v === null ? null : Math.round(v) });
          }}
        />
        <Select
          label={strings.modalCombination}
          allowDeselect={false}
          value={a.combine ?? "CQC"}
          data={["CQC", "SRSS", "ABS"]}
          onChange={(v) => {
            set({ combine: v as "CQC" });
          }}
        />
        <ValueInput
          label={strings.damping}
          unit="%"
          value={100 * (a.damping ?? 0.05)}
          onCommit={(v) => {
            set({ damping: (v ?? 5) / 100 });
          }}
        />
        <ValueInput
          label={strings.accidentalEccentricity}
          unit="%"
          value={100 * (a.eccentricity ?? 0.05)}
          onCommit={(v) => {
            set({ eccentricity: (v ?? 5) / 100 });
          }}
        />
        <Select
          label={strings.eccentricityAs}
          allowDeselect={false}
          value={a.eccentricity_as ?? "moments"}
          data={[
            { value: "moments", label: strings.staticMoments },
            { value: "mass", label: strings.shiftedMass },
          ]}
          onChange={(v) => {
            set({ eccentricity_as: v as "moments" });
          }}
        />
      </div>
      <div className={css["row"]}>
        <Checkbox
          label={strings.secondOrderEffectsOfGravity}
          checked={model.p_delta ?? false}
          onChange={(e) => {
            const on = e.currentTarget.checked;
            change((m) => {
              m.p_delta = on;
            });
          }}
        />
        <Checkbox
          label={strings.residualMassCorrection}
          checked={a.residual_mass ?? false}
          onChange={(e) => {
            set({ residual_mass: e.currentTarget.checked });
          }}
        />
      </div>
    </section>
  );
}
