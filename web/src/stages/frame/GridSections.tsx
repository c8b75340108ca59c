import { ValueInput } from "../../shared/ValueInput";
import css from "./GridBuilder.module.css";
import { strings } from "./strings";
import type { GridPart } from "./useGrid";

/** Sections of a grid by group, with their cracked stiffness. */
export function GridSections({ grid, set }: GridPart) {
  const rectangle = (title: string, key: "columns" | "beams_x" | "beams_y") => (
    <tr>
      <td className={css["oneLine"]}>{title}</td>
      <td>
        <ValueInput
          aria-label={strings.widthOf(title)}
          w={84}
          value={grid[key].width}
          onCommit={(v) => {
            if (v) set({ [key]: { ...grid[key], width: v } });
          }}
        />
      </td>
      <td>
        <ValueInput
          aria-label={strings.depthOf(title)}
          w={84}
          value={grid[key].depth}
          onCommit={(v) => {
            if (v) set({ [key]: { ...grid[key], depth: v } });
          }}
        />
      </td>
      <td>
        {key === "columns" ? (
          factor("columns")
        ) : key === "beams_x" ? (
          factor("beams")
        ) : (
          <span className="quiet">{strings.asAlongX}</span>
        )}
      </td>
    </tr>
  );
  const factor = (key: "columns" | "beams" | "walls") => (
    <ValueInput
      aria-label={strings.crackedStiffnessOfGroup(key)}
      w={84}
      value={grid.cracking?.[key]}
      onCommit={(v) => {
        if (v) set({ cracking: { columns: 0.7, beams: 0.35, walls: 0.5, ...grid.cracking, [key]: v } });
      }}
    />
  );
  return (
    <div>
      <h3 className="part">{strings.sectionsByGroup}</h3>
      <table className={`plain ${css["width"] ?? ""}`}>
        <thead>
          <tr>
            <th />
            <th>{strings.widthM}</th>
            <th>{strings.depthM}</th>
            <th>{strings.crackedEi}</th>
          </tr>
        </thead>
        <tbody>
          {rectangle("columns", "columns")}
          {rectangle(strings.beamsAlongX, "beams_x")}
          {rectangle(strings.beamsAlongY, "beams_y")}
          <tr>
            <td>{strings.walls}</td>
            <td>
              <ValueInput
                aria-label={strings.thicknessOfWalls}
                w={84}
                value={grid.wall_thickness}
                onCommit={(v) => {
                  if (v) set({ wall_thickness: v });
                }}
              />
            </td>
            <td className="quiet">{strings.fullBay}</td>
            <td>{factor("walls")}</td>
          </tr>
          <tr>
            <td>{strings.braces}</td>
            <td colSpan={3}>
              <ValueInput
                aria-label={strings.areaOfBraces}
                w={120}
                unit="m²"
                value={grid.brace_area}
                onCommit={(v) => {
                  if (v) set({ brace_area: v });
                }}
              />
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  );
}
