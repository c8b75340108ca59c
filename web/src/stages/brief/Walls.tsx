import { Button } from "@mantine/core";
import type { Brief } from "../../shared/api/client";
import { ValueInput } from "../../shared/ValueInput";
import { strings } from "./strings";
import css from "./Walls.module.css";

interface Props {
  brief: Brief;
  change: (edit: (brief: Brief) => void) => void;
  directions: ("X" | "Y")[];
  /** whether the edition requires the height of each wall */
  heights: boolean;
  /** whether an edition requires the area of the base */
  area: boolean;
}

/** What periods of wall buildings rest on: web area, length and, where requested, height of each wall by direction. */
export function Walls({ brief, change, directions, heights, area }: Props) {
  return (
    <>
      <h3 className="part">{strings.shearWallsOfTheFirst}</h3>
      {area && (
        <ValueInput
          label={strings.areaOfTheBaseA}
          w={170}
          unit="m²"
          value={brief.system?.A_B}
          onCommit={(v) => {
            change((b) => {
              b.system = { ...b.system, A_B: v };
            });
          }}
        />
      )}
      {directions.map((d) => {
        const walls = brief.system?.[d]?.walls ?? [];
        const set = (next: { A_i: number; D_i: number; h_i?: number | null }[]) => {
          change((b) => {
            b.system = { ...b.system, [d]: { ...b.system?.[d], walls: next.length ? next : null } };
          });
        };
        return (
          <div key={d} className={css["below"]}>
            {walls.map((wall, i) => (
              <div key={i} className={css["row"]}>
                <span className={`quiet ${css["width"] ?? ""}`}>
                  {strings.wall(d)}
                  {i + 1}
                </span>
                <ValueInput
                  aria-label={strings.webAreaOfWall(d, i + 1)}
                  w={110}
                  unit="m²"
                  value={wall.A_i}
                  onCommit={(v) => {
                    if (v) set(walls.map((w, j) => (j === i ? { ...w, A_i: v } : w)));
                  }}
                />
                <ValueInput
                  aria-label={strings.lengthOfWall(d, i + 1)}
                  w={110}
                  unit="m"
                  value={wall.D_i}
                  onCommit={(v) => {
                    if (v) set(walls.map((w, j) => (j === i ? { ...w, D_i: v } : w)));
                  }}
                />
                {heights && (
                  <ValueInput
                    aria-label={strings.heightOfWall(d, i + 1)}
                    w={130}
                    unit="m"
                    placeholder={strings.fullHeight}
                    value={wall.h_i}
                    onCommit={(v) => {
                      set(walls.map((w, j) => (j === i ? { ...w, h_i: v } : w)));
                    }}
                  />
                )}
                <Button
                  variant="subtle"
                  color="gray"
                  onClick={() => {
                    set(walls.filter((_, j) => j !== i));
                  }}
                >
                  {strings.remove}
                </Button>
              </div>
            ))}
            <Button
              variant="default"
              onClick={() => {
                set([...walls, { A_i: 1, D_i: 4 }]);
              }}
            >
              {strings.addAWallIn(d)}
            </Button>
          </div>
        );
      })}
    </>
  );
}
