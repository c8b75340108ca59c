import { Select, TextInput } from "@mantine/core";
import { useState } from "react";
import { ValueInput } from "../../shared/ValueInput";
import { baysText, readBays } from "./grid";
import css from "./GridBuilder.module.css";
import { strings } from "./strings";
import type { GridPart } from "./useGrid";

/** Bays, base and material of a grid. */
export function GridGeometry({ grid, set, stories }: GridPart & { stories: number }) {
  return (
    <div>
      <h3 className="part">{strings.bays}</h3>
      <div className={css["row"]}>
        <Bays
          label={strings.alongXM}
          value={grid.bays_x}
          onCommit={(bays_x) => {
            set({ bays_x });
          }}
        />
        <Bays
          label={strings.alongYM}
          value={grid.bays_y}
          onCommit={(bays_y) => {
            set({ bays_y });
          }}
        />
      </div>
      <p className={`quiet ${css["smallLine"] ?? ""}`}>{strings.n3x68MeansThreeBays}</p>
      <div className={css["row2"]}>
        <Select
          label={strings.base}
          w={110}
          allowDeselect={false}
          value={grid.base ?? "fixed"}
          data={["fixed", "pinned"]}
          onChange={(v) => {
            set({ base: v as "fixed" | "pinned" });
          }}
        />
        <ValueInput
          label="E"
          w={120}
          unit="GPa"
          value={(grid.E ?? 3e7) / 1e6}
          onCommit={(v) => {
            if (v) set({ E: v * 1e6 });
          }}
        />
        <ValueInput
          label={strings.density}
          w={110}
          unit="t/m³"
          value={grid.density}
          onCommit={(v) => {
            set({ density: v ?? 0 });
          }}
        />
      </div>
      <p className={`quiet ${css["small"] ?? ""}`}>{strings.storiesAndTheWeightsOf(stories)}</p>
    </div>
  );
}

/** Widths of bays as text, such as 3x6 8. */
function Bays({ label, value, onCommit }: { label: string; value: number[]; onCommit: (bays: number[]) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const read = typed === null ? value : readBays(typed);
  const commit = () => {
    if (typed !== null && read) {
      onCommit(read);
      setTyped(null);
    }
  };
  return (
    <TextInput
      label={label}
      w={200}
      value={typed ?? baysText(value)}
      error={read ? undefined : strings.enterWidthsAboveZeroSuch}
      onChange={(e) => {
        setTyped(e.currentTarget.value);
      }}
      onBlur={commit}
      onKeyDown={(e) => {
        if (e.key === "Enter") commit();
        if (e.key === "Escape") setTyped(null);
      }}
    />
  );
}
