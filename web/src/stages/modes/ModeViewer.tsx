import { Button, SegmentedControl } from "@mantine/core";
import { lazy, Suspense, useMemo, useState } from "react";
import type { ModalAnswer, TheirMode } from "../../model/answers";
import { drawnOf, movedByFloors, rigid, scaleOf, type Point } from "../../model/geometry";
import type { View } from "../../model/colours";
import type { Outline } from "../../model/Scene";
import type { ReferenceModel } from "../../shared/api/client";
import { PlanTwist } from "./PlanTwist";
import { strings } from "./strings";
import css from "./ModeViewer.module.css";

const Scene = lazy(() => import("../../model/Scene"));

interface Props {
  model: ReferenceModel;
  answer: ModalAnswer;
  mode: number;
  theirs: TheirMode | undefined;
  swapped: boolean;
  scheme: string;
  still: boolean;
  onMode: (mode: number) => void;
}

type Movement = [number, number, number];

/** Their shape of the mode at our floors, at the scale and sign that fits ours best; exchanged axes changed back. */
export function theirShape(
  theirs: TheirMode | undefined,
  names: string[],
  ours: readonly Movement[],
  swapped: boolean,
): Movement[] | null {
  if (!theirs?.shape) return null;
  const by = new Map(theirs.shape.map((r) => [r.story, r]));
  const raw = names.map((n): Movement => {
    const r = by.get(n);
    const [x, y, rz] = [r?.X ?? 0, r?.Y ?? 0, r?.RZ ?? 0];
    return swapped ? [y, x, -rz] : [x, y, rz];
  });
  let dot = 0,
    size = 0;
  raw.forEach((m, i) => {
    m.forEach((v, c) => {
      dot += v * (ours[i]?.[c] ?? 0);
      size += v * v;
    });
  });
  return size === 0 ? null : raw.map(([x, y, rz]): Movement => [(x * dot) / size, (y * dot) / size, (rz * dot) / size]);
}

/** The model turning slowly in the chosen mode, theirs as a ghost, the floors in plan and the shares beside it. */
export function ModeViewer({ model, answer, mode, theirs, swapped, scheme, still, onMode }: Props) {
  const [wanted, setPlaying] = useState<boolean | null>(null);
  const playing = wanted ?? !still;
  const [phase, setPhase] = useState(1);
  const [view, setView] = useState<View>("turn");
  const modeShape = answer.modes[mode - 1];
  const { floors } = answer;
  const drawn = useMemo(() => drawnOf(model, floors), [model, floors]);
  const shape = useMemo<Movement[]>(() => modeShape?.shape ?? [], [modeShape]);
  const raw = useMemo(
    () => answer.nodes?.shapes[mode - 1] ?? movedByFloors(drawn, floors, shape),
    [answer.nodes, mode, drawn, floors, shape],
  );
  const other = useMemo(
    () =>
      theirShape(
        theirs,
        floors.map((f) => f.name),
        shape,
        swapped,
      ),
    [theirs, floors, shape, swapped],
  );
  const { movement, outlines, ghosts, floorScale } = useMemo(() => {
    const floorMoves = floors.flatMap((f, i) =>
      f.corners.map((c): Point => {
        const m = shape[i];
        return m ? [...rigid(c, f.centre, m), 0] : [0, 0, 0];
      }),
    );
    // floors and nodes are stated in scales of their own; each is brought to the same size on the screen
    const nodeScale = scaleOf(drawn.points, raw),
      floorScale = scaleOf(drawn.points, floorMoves);
    const sense = senseOf(drawn.points, raw, floors, shape);
    const plates = (moves: readonly Movement[]): Outline[] =>
      floors.map((f, i) => ({
        plate: f.rigid,
        corners: f.corners.map((c): Point => [c[0], c[1], f.z]),
        movement: f.corners.map((c): Point => {
          const m = moves[i];
          const [x, y] = m ? rigid(c, f.centre, m) : [0, 0];
          return [x * floorScale, y * floorScale, 0];
        }),
      }));
    return {
      movement: raw.map(([x, y, z]): Point => [x * nodeScale * sense, y * nodeScale * sense, z * nodeScale * sense]),
      outlines: plates(shape),
      ghosts: other ? plates(other) : undefined,
      floorScale,
    };
  }, [floors, shape, drawn, raw, other]);
  if (!modeShape) return null;
  return (
    <section aria-label={strings.modeOfModel(mode)} className="modes-viewer">
      <div className="scene">
        <div className="scene-tools">
          <b>{strings.mode(mode)}</b>
          <span className="quiet">
            {modeShape.kind}, T = {modeShape.T.toFixed(3)} s
          </span>
          <span className={css["wrapRow"]}>
            <Button
              variant="default"
              aria-label={strings.previousMode}
              disabled={mode === 1}
              onClick={() => {
                onMode(mode - 1);
              }}
            >
              ‹
            </Button>
            <Button
              variant="default"
              aria-label={strings.nextMode}
              disabled={mode === answer.modes.length}
              onClick={() => {
                onMode(mode + 1);
              }}
            >
              ›
            </Button>
            <Button
              variant={playing ? "default" : "filled"}
              onClick={() => {
                setPlaying(!playing);
              }}
            >
              {playing ? strings.pause : strings.play}
            </Button>
            <Button
              variant="default"
              disabled={playing}
              aria-label={strings.stepThroughTheOscillation}
              onClick={() => {
                setPhase(nextPhase(phase));
              }}
            >
              {strings.step}
            </Button>
            <SegmentedControl
              aria-label={strings.view}
              value={view}
              data={["turn", "plan", strings.alongX, strings.alongY]}
              onChange={(v) => {
                setView(v as View);
              }}
            />
          </span>
        </div>
        <div className={css["area"]} role="img" aria-label={strings.theModelInMode(mode, modeShape.kind)}>
          <Suspense fallback={<p className={`quiet ${css["padded"] ?? ""}`}>{strings.loadingTheView}</p>}>
            <Scene
              drawn={drawn}
              movement={movement}
              floors={outlines}
              ghosts={ghosts}
              playing={playing}
              phase={phase}
              turning={playing && view === "turn"}
              view={view}
              scheme={scheme}
            />
          </Suspense>
        </div>
        <p className="scene-legend">
          <span>
            <svg width={20} height={6} aria-hidden>
              <line x2={20} y1={3} y2={3} stroke="var(--ours)" strokeWidth={2} />
            </svg>
            {strings.ourFloors}
          </span>
          {ghosts && (
            <span className="theirs">
              <svg width={20} height={6} aria-hidden>
                <line x2={20} y1={3} y2={3} stroke="var(--theirs)" strokeWidth={2} />
              </svg>
              {strings.theirFloors}
              {swapped ? strings.axesExchangedBack : ""}
            </span>
          )}
        </p>
      </div>
      <div className="modes-side">
        <PlanTwist floors={floors} shape={shape} theirs={other} scale={floorScale} />
        <div className="modes-bars" aria-label={strings.sharesOfTheMassIn}>
          {(["X", "Y", "RZ"] as const).map((a) => (
            <Bar key={a} name={a} ours={modeShape.mass_ratio[a]} theirs={theirs?.mass_ratio[a]} />
          ))}
        </div>
      </div>
    </section>
  );
}

/** The positions that stepping goes through: full swing, half, middle and back. */
const PHASES = [1, 0.5, 0, -0.5, -1, -0.5, 0, 0.5];
const nextPhase = (phase: number) => PHASES[(PHASES.indexOf(phase) + 1) % PHASES.length] ?? 1;

/** Whether the nodes' shape and the floors' go the same way (+1) or the other (-1). */
function senseOf(
  points: readonly Point[],
  raw: readonly Point[],
  floors: ModalAnswer["floors"],
  shape: readonly Movement[],
): 1 | -1 {
  let dot = 0;
  points.forEach((p, k) => {
    const i = floors.findIndex((f) => Math.abs(f.z - p[2]) < 0.05);
    const floor = floors[i],
      m = shape[i],
      by = raw[k];
    if (floor && m && by) {
      const [x, y] = rigid([p[0], p[1]], floor.centre, m);
      dot += x * by[0] + y * by[1];
    }
  });
  return dot < 0 ? -1 : 1;
}

function Bar({ name, ours, theirs }: { name: string; ours: number; theirs: number | undefined }) {
  return (
    <>
      <span>{name}</span>
      <span className="track">
        <span className="fill" style={{ width: `${String(100 * ours)}%` }} />
        {theirs !== undefined && (
          <span className="hollow" style={{ left: `${String(Math.min(100, 100 * theirs))}%` }} />
        )}
      </span>
      <span className={`n ours ${css["spaced"] ?? ""}`}>{(100 * ours).toFixed(1)} %</span>
    </>
  );
}
