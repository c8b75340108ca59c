import { Button, Select, TextInput, useComputedColorScheme } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useMemo, useState } from "react";
import { Link } from "react-router";
import { drawnFrame, type Point } from "../../model/geometry";
import { groupColours } from "../../model/colours";
import type { Outline } from "../../model/Scene";
import type { Frame, Grid, Story } from "../../shared/api/client";
import { gridQuery } from "../../shared/api/queries";
import { Problems } from "../../shared/Problems";
import { ValueInput } from "../../shared/ValueInput";
import { baysText, readBays } from "./grid";
import { strings } from "./strings";
import css from "./GridBuilder.module.css";

const Scene = lazy(() => import("../../model/Scene"));

interface Props {
  reviewId: string;
  stories: Story[];
  grid: Grid | null;
  /** whether a frame is there that would be replaced */
  replaces: boolean;
  onTake: (grid: Grid, frame: Frame) => void;
}

type Panel = NonNullable<Grid["panels"]>[number];

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

/** A regular frame from bays, sections by group, and walls or bracing by bay; drawn as it is typed, kept when taken. */
export function GridBuilder({ reviewId, stories, grid, replaces, onTake }: Props) {
  const scheme = useComputedColorScheme("light");
  const [edited, setEdited] = useState<Grid>(grid ?? { ...START, panels: [] });
  const set = (to: Partial<Grid>) => {
    setEdited((g) => ({ ...g, ...to }));
  };
  const built = useQuery({ ...gridQuery(reviewId, edited), enabled: stories.length > 0 });
  const frame = built.error ? undefined : built.data?.frame;
  const drawn = useMemo(() => (frame ? drawnFrame(frame) : null), [frame]);
  if (stories.length === 0) {
    return (
      <div className="empty">
        <p>{strings.theGridUsesTheStories}</p>
        <Button component={Link} to="../brief">
          {strings.toTheBrief}
        </Button>
      </div>
    );
  }
  const groups = drawn ? [...new Set(drawn.segments.map((s) => s.group))] : [];
  const colours = groupColours(groups);
  const panels = edited.panels ?? [];
  const setPanel = (i: number, to: Partial<Panel>) => {
    set({ panels: panels.map((p, j) => (j === i ? { ...p, ...to } : p)) });
  };
  const rectangle = (title: string, key: "columns" | "beams_x" | "beams_y") => (
    <tr>
      <td className={css["oneLine"]}>{title}</td>
      <td>
        <ValueInput
          aria-label={strings.widthOf(title)}
          w={84}
          value={edited[key].width}
          onCommit={(v) => {
            if (v) set({ [key]: { ...edited[key], width: v } });
          }}
        />
      </td>
      <td>
        <ValueInput
          aria-label={strings.depthOf(title)}
          w={84}
          value={edited[key].depth}
          onCommit={(v) => {
            if (v) set({ [key]: { ...edited[key], depth: v } });
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
      aria-label={strings.crackedStiffnessOf2(key)}
      w={84}
      value={edited.cracking?.[key]}
      onCommit={(v) => {
        if (v) set({ cracking: { columns: 0.7, beams: 0.35, walls: 0.5, ...edited.cracking, [key]: v } });
      }}
    />
  );
  return (
    <section aria-label={strings.buildWithTheGrid}>
      <div className="grid-build">
        <div className="grid-parts">
          <div>
            <h3 className="part">{strings.bays}</h3>
            <div className={css["row"]}>
              <Bays
                label={strings.alongXM}
                value={edited.bays_x}
                onCommit={(bays_x) => {
                  set({ bays_x });
                }}
              />
              <Bays
                label={strings.alongYM}
                value={edited.bays_y}
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
                value={edited.base ?? "fixed"}
                data={["fixed", "pinned"]}
                onChange={(v) => {
                  set({ base: v as "fixed" | "pinned" });
                }}
              />
              <ValueInput
                label="E"
                w={120}
                unit="GPa"
                value={(edited.E ?? 3e7) / 1e6}
                onCommit={(v) => {
                  if (v) set({ E: v * 1e6 });
                }}
              />
              <ValueInput
                label={strings.density}
                w={110}
                unit="t/m³"
                value={edited.density}
                onCommit={(v) => {
                  set({ density: v ?? 0 });
                }}
              />
            </div>
            <p className={`quiet ${css["small"] ?? ""}`}>{strings.storiesAndTheWeightsOf(stories.length)}</p>
          </div>
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
                      value={edited.wall_thickness}
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
                      value={edited.brace_area}
                      onCommit={(v) => {
                        if (v) set({ brace_area: v });
                      }}
                    />
                  </td>
                </tr>
              </tbody>
            </table>
          </div>
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
                    panels: [
                      ...panels,
                      { kind: "wall", along: "X", line: 1, bay: 1, from_story: 1, to_story: stories.length },
                    ],
                  });
                }}
              >
                {strings.addAWall}
              </Button>
              <Button
                variant="default"
                onClick={() => {
                  set({
                    panels: [
                      ...panels,
                      { kind: "braces", along: "X", line: 1, bay: 1, from_story: 1, to_story: stories.length },
                    ],
                  });
                }}
              >
                {strings.addBracing}
              </Button>
            </div>
          </div>
        </div>
        <div>
          <Problems error={built.error} title={strings.thisGridCannotBeBuilt} />
          {drawn && (
            <div className={`scene ${css["below"] ?? ""}`}>
              <div className="scene-tools">
                <span className="quiet">{strings.nodesMembers(drawn.points.length, drawn.segments.length)}</span>
                <Button
                  ml="auto"
                  disabled={!frame || built.isPlaceholderData}
                  onClick={() => {
                    if (frame) onTake(edited, frame);
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
                {groups.map((g) => (
                  <span key={g}>
                    <svg width={20} height={6} aria-hidden>
                      <line x2={20} y1={3} y2={3} stroke={`var(--${colours[g] ?? "ink"})`} strokeWidth={2} />
                    </svg>
                    {g}
                  </span>
                ))}
              </p>
            </div>
          )}
        </div>
      </div>
    </section>
  );
}

function floorsOf(frame: Frame | undefined): Outline[] {
  return (frame?.floors ?? []).map((f) => {
    const id = frame?.diaphragms?.find((d) => d.id === f.diaphragm)?.nodes[0];
    const z = frame?.nodes.find((n) => n.id === id)?.at[2] ?? 0;
    return { corners: (f.outline ?? []).map((c): Point => [c[0] ?? 0, c[1] ?? 0, z]), movement: [], plate: true };
  });
}

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
