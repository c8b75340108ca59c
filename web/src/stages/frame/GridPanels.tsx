import { Button, Select } from "@mantine/core";
import type { Grid } from "../../shared/api/client";
import { ValueInput } from "../../shared/ValueInput";
import css from "./GridBuilder.module.css";
import { strings } from "./strings";
import type { GridPart } from "./useGrid";

type Panel = NonNullable<Grid["panels"]>[number];

/** Walls and bracing of a grid, bay by bay. */
export function GridPanels({ grid, set, stories }: GridPart & { stories: number }) {
  const panels = grid.panels ?? [];
  const setPanel = (i: number, to: Partial<Panel>) => {
    set({ panels: panels.map((p, j) => (j === i ? { ...p, ...to } : p)) });
  };
  return (
    <div>
      <h3 className="part">{strings.wallsAndBracingByBay}</h3>
      {panels.length > 0 && (
        <table className={`plain ${css["width"] ?? ""}`} aria-label={strings.wallsAndBracingByBay}>
          <thead>
            <tr>
              <th>{strings.what}</th>
              <th>{strings.along}</th>
              <th>{strings.line}</th>
              <th>{strings.bay}</th>
              <th>{strings.fromStory}</th>
              <th>{strings.to}</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {panels.map((p, i) => (
              <tr key={i}>
                <td>
                  <Select
                    aria-label={strings.kindOfPanel(i + 1)}
                    w={92}
                    allowDeselect={false}
                    value={p.kind}
                    data={["wall", "braces"]}
                    onChange={(v) => {
                      setPanel(i, { kind: v as Panel["kind"] });
                    }}
                  />
                </td>
                <td>
                  <Select
                    aria-label={strings.directionOfPanel(i + 1)}
                    w={64}
                    allowDeselect={false}
                    value={p.along}
                    data={["X", "Y"]}
                    onChange={(v) => {
                      setPanel(i, { along: v as "X" | "Y" });
                    }}
                  />
                </td>
                {(["line", "bay", "from_story", "to_story"] as const).map((k) => (
                  <td key={k}>
                    <ValueInput
                      aria-label={strings.ofPanel(k.replace("_", " "), i + 1)}
                      w={58}
                      value={p[k] ?? 1}
                      onCommit={(v) => {
                        if (v) setPanel(i, { [k]: Math.round(v) });
                      }}
                    />
                  </td>
                ))}
                <td>
                  <Button
                    variant="subtle"
                    color="gray"
                    aria-label={strings.removePanel(i + 1)}
                    onClick={() => {
                      set({ panels: panels.filter((_, j) => j !== i) });
                    }}
                  >
                    {strings.remove}
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <div className={css["row3"]}>
        <Button
          variant="default"
          onClick={() => {
            set({
              panels: [...panels, { kind: "wall", along: "X", line: 1, bay: 1, from_story: 1, to_story: stories }],
            });
          }}
        >
          {strings.addAWall}
        </Button>
        <Button
          variant="default"
          onClick={() => {
            set({
              panels: [...panels, { kind: "braces", along: "X", line: 1, bay: 1, from_story: 1, to_story: stories }],
            });
          }}
        >
          {strings.addBracing}
        </Button>
      </div>
    </div>
  );
}
