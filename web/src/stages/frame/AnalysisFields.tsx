import { Checkbox, Select } from "@mantine/core";
import type { ReferenceModel } from "../../shared/api/client";
import { ValueInput } from "../../shared/ValueInput";

interface Props {
  model: ReferenceModel;
  change: (edit: (model: ReferenceModel) => void) => void;
}

type Analysis = NonNullable<ReferenceModel["analysis"]>;

/** How our model is solved and its modes are combined. */
export function AnalysisFields({ model, change }: Props) {
  const a: Partial<Analysis> = model.analysis ?? {};
  const set = (edit: Partial<Analysis>) => {
    change((m) => {
      m.analysis = { ...m.analysis, ...edit } as Analysis;
    });
  };
  return (
    <section aria-label="How it is solved">
      <h3 className="part">How it is solved</h3>
      <div className="fields" style={{ maxWidth: 1100 }}>
        <Select
          label="Modes by"
          allowDeselect={false}
          value={a.method ?? "eigen"}
          data={[
            { value: "eigen", label: "eigen solution" },
            { value: "ritz", label: "load-dependent Ritz" },
          ]}
          onChange={(v) => {
            set({ method: v as "eigen" | "ritz" });
          }}
        />
        <ValueInput
          label="Number of modes"
          placeholder={model.use === "frame" ? "to 90 % each way" : "all there are"}
          value={a.modes}
          onCommit={(v) => {
            set({ modes: v === null ? null : Math.round(v) });
          }}
        />
        <Select
          label="Modes together"
          allowDeselect={false}
          value={a.combine ?? "CQC"}
          data={["CQC", "SRSS", "ABS"]}
          onChange={(v) => {
            set({ combine: v as "CQC" });
          }}
        />
        <ValueInput
          label="Damping"
          unit="%"
          value={100 * (a.damping ?? 0.05)}
          onCommit={(v) => {
            set({ damping: (v ?? 5) / 100 });
          }}
        />
        <ValueInput
          label="Accidental eccentricity"
          unit="%"
          value={100 * (a.eccentricity ?? 0.05)}
          onCommit={(v) => {
            set({ eccentricity: (v ?? 5) / 100 });
          }}
        />
        <Select
          label="Eccentricity as"
          allowDeselect={false}
          value={a.eccentricity_as ?? "moments"}
          data={[
            { value: "moments", label: "static moments" },
            { value: "mass", label: "shifted mass" },
          ]}
          onChange={(v) => {
            set({ eccentricity_as: v as "moments" });
          }}
        />
      </div>
      <div style={{ display: "flex", gap: 24, marginTop: 8 }}>
        <Checkbox
          label="second order effects of gravity (P-Delta)"
          checked={model.p_delta ?? false}
          onChange={(e) => {
            const on = e.currentTarget.checked;
            change((m) => {
              m.p_delta = on;
            });
          }}
        />
        <Checkbox
          label="residual mass for what the modes leave out"
          checked={a.residual_mass ?? false}
          onChange={(e) => {
            set({ residual_mass: e.currentTarget.checked });
          }}
        />
      </div>
    </section>
  );
}
