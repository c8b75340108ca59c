import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { drawnFrame } from "../../model/geometry";
import type { Grid } from "../../shared/api/client";
import { gridQuery } from "../../shared/api/queries";

const START: Grid = {
  bays_x: [6, 6, 6],
  bays_y: [6, 6],
  E: 3.0e7,
  nu: 0.2,
  density: 2.5,
  columns: { width: 0.5, depth: 0.5 },
  beams_x: { width: 0.3, depth: 0.6 },
  beams_y: { width: 0.3, depth: 0.6 },
  wall_thickness: 0.3,
  brace_area: 0.004,
  cracking: { columns: 0.7, beams: 0.35, walls: 0.5 },
  base: "fixed",
  panels: [],
};

/** What the parts of the grid share: its values, and how to change some of them. */
export interface GridPart {
  grid: Grid;
  set: (to: Partial<Grid>) => void;
}

/** The grid that is edited, and the frame that the server builds from it. */
export function useGrid(reviewId: string, given: Grid | null, enabled: boolean) {
  const [grid, setGrid] = useState<Grid>(given ?? { ...START, panels: [] });
  const built = useQuery({ ...gridQuery(reviewId, grid), enabled });
  const frame = built.error ? undefined : built.data?.frame;
  const drawn = useMemo(() => (frame ? drawnFrame(frame) : null), [frame]);
  const set = (to: Partial<Grid>) => {
    setGrid((g) => ({ ...g, ...to }));
  };
  return { grid, set, built, frame, drawn };
}
