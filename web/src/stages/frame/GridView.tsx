import { Button, useComputedColorScheme } from "@mantine/core";
import { lazy, Suspense } from "react";
import { GroupLegend } from "../../model/GroupLegend";
import type { drawnFrame, Point } from "../../model/geometry";
import type { Outline } from "../../model/Scene";
import type { Frame } from "../../shared/api/client";
import css from "./GridBuilder.module.css";
import { strings } from "./strings";

const Scene = lazy(() => import("../../model/Scene"));

interface Props {
  drawn: ReturnType<typeof drawnFrame>;
  frame: Frame | undefined;
  /** whether the frame belongs to the values that are shown */
  current: boolean;
  replaces: boolean;
  onTake: (frame: Frame) => void;
}

/** The frame of a grid in 3D, with the button that uses it. */
export function GridView({ drawn, frame, current, replaces, onTake }: Props) {
  const scheme = useComputedColorScheme("light");
  const groups = [...new Set(drawn.segments.map((s) => s.group))];
  return (
    <div className={`scene ${css["below"] ?? ""}`}>
      <div className="scene-tools">
        <span className="quiet">{strings.nodesMembers(drawn.points.length, drawn.segments.length)}</span>
        <Button
          ml="auto"
          disabled={!frame || !current}
          onClick={() => {
            if (frame) onTake(frame);
          }}
        >
          {replaces ? strings.useItInsteadOfThe : strings.useThisFrame}
        </Button>
      </div>
      <div className={css["area"]} role="img" aria-label={strings.n3dViewOfTheFrame}>
        <Suspense fallback={<p className={`quiet ${css["padded"] ?? ""}`}>{strings.loadingTheView}</p>}>
          <Scene
            drawn={drawn}
            floors={floorsOf(frame)}
            playing={false}
            phase={0}
            turning={false}
            view="turn"
            scheme={scheme}
          />
        </Suspense>
      </div>
      <p className="scene-legend">
        <GroupLegend groups={groups} />
      </p>
    </div>
  );
}

function floorsOf(frame: Frame | undefined): Outline[] {
  return (frame?.floors ?? []).map((f) => {
    const id = frame?.diaphragms?.find((d) => d.id === f.diaphragm)?.nodes[0];
    const z = frame?.nodes.find((n) => n.id === id)?.at[2] ?? 0;
    return { corners: (f.outline ?? []).map((c): Point => [c[0] ?? 0, c[1] ?? 0, z]), movement: [], plate: true };
  });
}
