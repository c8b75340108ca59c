import { Canvas, useFrame, useThree } from "@react-three/fiber";
import { useEffect, useMemo, useRef } from "react";
import { BufferAttribute, BufferGeometry, Color, DoubleSide, ShapeUtils, Vector2, Vector3 } from "three";
import { OrbitControls } from "three/examples/jsm/controls/OrbitControls.js";
import { chartLooks } from "../shared/useChart";
import type { Drawn, Point } from "./geometry";
import { groupColours, type View } from "./colours";

export interface Outline {
  corners: Point[];
  movement: Point[];
  /** rigid in its plane, drawn as a plate */
  plate: boolean;
}

export interface SceneProps {
  drawn: Drawn;
  /** displacement of each point at full swing, in the scale it is drawn in */
  movement?: Point[] | undefined;
  floors: Outline[];
  /** floors as the submission states them moving */
  ghosts?: Outline[] | undefined;
  playing: boolean;
  /** part of the swing where it is at rest, -1 to 1 */
  phase: number;
  turning: boolean;
  view: View;
  /** points and segments that warnings are about */
  marked?: { points: Set<number>; segments: Set<string>; stops: boolean } | undefined;
  picked?: string | null;
  onPick?: ((id: string) => void) | undefined;
  scheme: string;
}

/** The model in space, for looking: three.js draws it when this module is loaded. */
export default function Scene(props: SceneProps) {
  const { points } = props.drawn;
  const box = useMemo(() => {
    const range = (c: 0 | 1 | 2) => {
      const v = points.map((p) => p[c]);
      return [Math.min(...v, 0), Math.max(...v, 1)] as const;
    };
    const [x, y, z] = [range(0), range(1), range(2)];
    const size = Math.hypot(x[1] - x[0], y[1] - y[0], z[1] - z[0]);
    const across = Math.hypot(x[1] - x[0], y[1] - y[0]),
      up = z[1] - z[0];
    return { across, up, middle: new Vector3((x[0] + x[1]) / 2, (y[0] + y[1]) / 2, (z[0] + z[1]) / 2), size };
  }, [points]);
  return (
    <Canvas
      frameloop={props.playing || props.turning ? "always" : "demand"}
      camera={{ fov: FOV, near: box.size / 200, far: box.size * 12 }}
      raycaster={{
        params: { Line: { threshold: box.size / 220 }, Points: { threshold: 0.2 }, Mesh: {}, LOD: {}, Sprite: {} },
      }}
    >
      <Camera box={box} view={props.view} turning={props.turning} />
      <Model {...props} />
    </Canvas>
  );
}

interface Box {
  middle: Vector3;
  across: number;
  up: number;
}

const FOV = 28;

function Camera({ box, view, turning }: { box: Box; view: View; turning: boolean }) {
  const { camera, gl, invalidate, size } = useThree();
  const aspect = size.width / Math.max(1, size.height);
  const controls = useRef<OrbitControls | null>(null);
  useEffect(() => {
    camera.up.set(0, 0, 1);
    const own = new OrbitControls(camera, gl.domElement);
    own.addEventListener("change", () => {
      invalidate();
    });
    controls.current = own;
    return () => {
      own.dispose();
    };
  }, [camera, gl, invalidate]);
  useEffect(() => {
    const from = {
      turn: new Vector3(-1.05, -1.5, 0.72),
      plan: new Vector3(0, -0.001, 1),
      "along X": new Vector3(-1, 0, 0.02),
      "along Y": new Vector3(0, -1, 0.02),
    }[view];
    // as near as lets all of it be seen from every side, whatever the shape of the window
    const half = Math.tan((FOV * Math.PI) / 360),
      tall = view === "plan" ? box.across : box.up + 0.45 * box.across;
    const distance = Math.max(tall / 2 / half, box.across / 2 / (half * aspect)) * 0.98 + box.across / 2.6;
    camera.position.copy(box.middle).addScaledVector(from.normalize(), distance);
    controls.current?.target.copy(box.middle);
    controls.current?.update();
    invalidate();
  }, [camera, box, view, aspect, invalidate]);
  useFrame(() => {
    if (!controls.current) return;
    controls.current.autoRotate = turning;
    controls.current.autoRotateSpeed = 0.7;
    controls.current.update();
  });
  return null;
}

function Model({ drawn, movement, floors, ghosts, playing, phase, marked, picked, onPick, scheme }: SceneProps) {
  const colour = useMemo(() => {
    // the colours are read from the page, which the scheme changes
    // eslint-disable-next-line @typescript-eslint/no-meaningless-void-operator
    void scheme;
    const { colour: of } = chartLooks();
    return (name: string) => new Color(of(name));
  }, [scheme]);
  const clock = useRef(0);
  const { invalidate } = useThree();

  const frame = useMemo(() => {
    const geometry = new BufferGeometry();
    geometry.setAttribute("position", new BufferAttribute(new Float32Array(drawn.segments.length * 6), 3));
    const colours = groupColours([...new Set(drawn.segments.map((s) => s.group))]);
    const values = new Float32Array(drawn.segments.length * 6);
    drawn.segments.forEach((s, k) => {
      const own = colour(
        picked === s.id
          ? "theirs"
          : marked?.segments.has(s.id)
            ? marked.stops
              ? "limit"
              : "off"
            : (colours[s.group] ?? "ink"),
      );
      values.set([own.r, own.g, own.b, own.r, own.g, own.b], k * 6);
    });
    geometry.setAttribute("color", new BufferAttribute(values, 3));
    return geometry;
  }, [drawn, colour, marked, picked]);
  const outline = (shown: Outline[]) => {
    const geometry = new BufferGeometry();
    geometry.setAttribute(
      "position",
      new BufferAttribute(new Float32Array(shown.reduce((n, f) => n + f.corners.length * 6, 0)), 3),
    );
    return geometry;
  };
  const floorLines = useMemo(() => outline(floors), [floors]);
  const ghostLines = useMemo(() => outline(ghosts ?? []), [ghosts]);
  // floors as thin plates, so that one sees which lines are one floor and how it twists
  const plates = useMemo(() => {
    const geometry = new BufferGeometry();
    geometry.setAttribute(
      "position",
      new BufferAttribute(new Float32Array(floors.reduce((n, f) => n + f.corners.length * 3, 0)), 3),
    );
    let first = 0;
    geometry.setIndex(
      floors.flatMap((f) => {
        const faces = f.plate
          ? ShapeUtils.triangulateShape(
              f.corners.map(([x, y]) => new Vector2(x, y)),
              [],
            ).flatMap((face) => face.map((i) => first + i))
          : [];
        first += f.corners.length;
        return faces;
      }),
    );
    return geometry;
  }, [floors]);
  const feet = useMemo(() => {
    const geometry = new BufferGeometry();
    geometry.setAttribute(
      "position",
      new BufferAttribute(new Float32Array(drawn.supports.flatMap((p) => drawn.points[p] ?? [])), 3),
    );
    return geometry;
  }, [drawn]);
  const signs = useMemo(() => {
    const at = [...(marked?.points ?? [])].flatMap((p) => drawn.points[p] ?? []);
    const geometry = new BufferGeometry();
    geometry.setAttribute("position", new BufferAttribute(new Float32Array(at), 3));
    return geometry;
  }, [drawn, marked]);

  const place = (part: number) => {
    const position = frame.getAttribute("position") as BufferAttribute;
    drawn.segments.forEach((s, k) => {
      [s.a, s.b].forEach((p, end) => {
        const base = drawn.points[p] ?? [0, 0, 0],
          by = movement?.[p] ?? [0, 0, 0];
        position.setXYZ(2 * k + end, base[0] + part * by[0], base[1] + part * by[1], base[2] + part * by[2]);
      });
    });
    position.needsUpdate = true;
    frame.computeBoundingSphere();
    const surface = plates.getAttribute("position") as BufferAttribute;
    let vertex = 0;
    for (const f of floors)
      f.corners.forEach((c, i) => {
        const by = f.movement[i] ?? [0, 0, 0];
        surface.setXYZ(vertex++, c[0] + part * by[0], c[1] + part * by[1], c[2] + part * by[2]);
      });
    surface.needsUpdate = true;
    plates.computeBoundingSphere();
    for (const [geometry, shown] of [
      [floorLines, floors],
      [ghostLines, ghosts ?? []],
    ] as const) {
      const corners = geometry.getAttribute("position") as BufferAttribute;
      let n = 0;
      for (const f of shown) {
        f.corners.forEach((c, k) => {
          for (const i of [k, (k + 1) % f.corners.length]) {
            const base = f.corners[i] ?? c,
              by = f.movement[i] ?? [0, 0, 0];
            corners.setXYZ(n++, base[0] + part * by[0], base[1] + part * by[1], base[2] + part * by[2]);
          }
        });
      }
      corners.needsUpdate = true;
      geometry.computeBoundingSphere();
    }
  };
  useEffect(() => {
    if (!playing) place(movement ? phase : 0);
    invalidate();
  });
  useFrame((_, delta) => {
    if (!playing) return;
    clock.current += delta;
    place(Math.sin(clock.current * 2.2));
  });
  return (
    <group>
      <lineSegments
        geometry={frame}
        onClick={
          onPick &&
          ((e) => {
            e.stopPropagation();
            const s = drawn.segments[Math.floor((e.index ?? 0) / 2)];
            if (s) onPick(s.id);
          })
        }
      >
        <lineBasicMaterial vertexColors />
      </lineSegments>
      <mesh geometry={plates}>
        <meshBasicMaterial color={colour("ours")} transparent opacity={0.07} side={DoubleSide} depthWrite={false} />
      </mesh>
      <lineSegments geometry={floorLines}>
        <lineBasicMaterial color={colour("ours")} transparent opacity={0.55} />
      </lineSegments>
      {ghosts && ghosts.length > 0 && (
        <lineSegments geometry={ghostLines}>
          <lineBasicMaterial color={colour("theirs")} />
        </lineSegments>
      )}
      <points geometry={feet}>
        <pointsMaterial color={colour("ink")} size={7} sizeAttenuation={false} />
      </points>
      <points geometry={signs}>
        <pointsMaterial color={colour(marked?.stops ? "limit" : "off")} size={12} sizeAttenuation={false} />
      </points>
    </group>
  );
}
