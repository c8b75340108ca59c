import { Button, SegmentedControl, useComputedColorScheme } from "@mantine/core";
import { lazy, Suspense, useMemo, useState } from "react";
import type { InspectAnswer, ModelWarning } from "../../model/answers";
import { drawnOf, type Point } from "../../model/geometry";
import { RunStatus } from "../../model/RunStatus";
import type { View } from "../../model/colours";
import { GroupLegend } from "../../model/GroupLegend";
import { useModel, useRun } from "../../model/useModel";
import { Warnings } from "../../model/Warnings";
import { useReviewContext } from "../../review/ReviewContext";
import { counted, figures } from "../../shared/numbers";
import { Problems } from "../../shared/Problems";
import { AnalysisFields } from "./AnalysisFields";
import { FrameOptions } from "./FrameOptions";
import { FrameTables } from "./FrameTables";
import { GridBuilder } from "./GridBuilder";
import { LinesEditor } from "./LinesEditor";
import "./frame.css";
import { strings } from "./strings";
import css from "./FramePage.module.css";

const Scene = lazy(() => import("../../model/Scene"));

/** What would I get? the reference model, in one of two depths. */
export default function FramePage() {
  const { review } = useReviewContext();
  const scheme = useComputedColorScheme("light");
  const saved = useModel(review.id);
  const { model } = saved;
  const use = model.use ?? "lines";
  const exists = use === "frame" ? Boolean(model.frame) : (model.lateral_lines?.length ?? 0) > 0;
  // what is being saved is asked about when it is saved
  const inspected = useRun<InspectAnswer>(review.id, "model", saved.number, review.brief_number, exists && !saved.busy);
  const [way, setWay] = useState<"view" | "grid" | "tables">("view");
  const [view, setView] = useState<View>("turn");
  const [picked, setPicked] = useState<string | null>(null);
  const [pointed, setPointed] = useState<ModelWarning | null>(null);
  // while the model is asked again, what it said last stays where it is: nothing moves under the hand that edits
  const [last, setLast] = useState<{ use: string; answer: InspectAnswer }>();
  if (inspected.answer && inspected.answer !== last?.answer) setLast({ use, answer: inspected.answer });
  const answer = inspected.answer ?? ((inspected.asking || saved.busy) && last?.use === use ? last.answer : undefined);
  const drawn = useMemo(() => drawnOf(model, answer?.floors ?? []), [model, answer]);
  const floors = useMemo(
    () =>
      (answer?.floors ?? []).map((f) => ({
        corners: f.corners.map((c): Point => [c[0], c[1], f.z]),
        movement: [],
        plate: f.rigid,
      })),
    [answer],
  );
  const marked = useMemo(() => {
    const warnings = pointed ? [pointed] : (answer?.warnings ?? []).filter((w) => w.stops);
    if (warnings.length === 0) return undefined;
    const nodes = new Set(warnings.flatMap((w) => w.nodes));
    return {
      points: new Set(drawn.names.flatMap((n, i) => (nodes.has(n) ? [i] : []))),
      segments: new Set(warnings.flatMap((w) => w.members)),
      stops: warnings.some((w) => w.stops),
    };
  }, [answer, drawn, pointed]);
  const groups = [...new Set(drawn.segments.map((s) => s.group))];
  const member = model.frame?.members.find((m) => m.id === picked);
  return (
    <main className={`page ${css["width"] ?? ""}`}>
      <div className="stage-head">
        <h2 className="stage-title">{strings.frame}</h2>
        <span className="quiet">{strings.referenceModelOfTheBuilding}</span>
        <SegmentedControl
          aria-label={strings.levelOfDetailOfThe}
          value={use}
          data={[
            { value: "lines", label: strings.lateralLines },
            { value: "frame", label: strings.n3dFrame },
          ]}
          onChange={(v) => {
            saved.change((m) => {
              m.use = v;
            });
            setPicked(null);
            setPointed(null);
          }}
        />
        <span className="end">
          <span className="quiet" aria-live="polite">
            {saved.busy ? strings.saving : strings.saved}
          </span>
          <Button variant="default" disabled={!saved.canUndo} onClick={saved.undo}>
            {strings.undo}
          </Button>
        </span>
      </div>
      <Problems error={saved.error} title={strings.notSavedTheModelIs} />
      {exists && !(inspected.asking && answer) && <RunStatus {...inspected} />}
      {answer && (
        <p className={answer.usable ? "quiet" : "limit"} style={{ margin: "6px 0", fontSize: 13 }}>
          {answer.usable
            ? [
                strings.theModelIsStableDegrees(answer.degrees_of_freedom ?? 0),
                counted(answer.floors.length, "floor"),
                strings.tOnThem(figures(answer.floors.reduce((s, f) => s + f.mass, 0))),
              ].join(", ")
            : strings.theModelIsNotStable}
        </p>
      )}
      {use === "frame" && (
        <SegmentedControl
          aria-label={strings.methodOfInput}
          value={way}
          data={[
            { value: "view", label: strings.viewLabel },
            { value: "grid", label: strings.gridOption },
            { value: "tables", label: strings.tablesOption },
          ]}
          onChange={(v) => {
            setWay(v);
          }}
          mb={8}
        />
      )}
      {use === "frame" && !model.frame && way === "view" && (
        <div className="empty">
          <p>{strings.thereIsNoFrameYet}</p>
        </div>
      )}
      {use === "frame" && way === "grid" && (
        <GridBuilder
          reviewId={review.id}
          stories={review.brief.stories ?? []}
          grid={model.grid ?? null}
          replaces={Boolean(model.frame)}
          onTake={(grid, frame) => {
            saved.change((m) => {
              m.grid = grid;
              m.frame = frame;
              m.use = "frame";
            });
            setWay("view");
          }}
        />
      )}
      {use === "frame" && way === "tables" && (
        <FrameTables
          reviewId={review.id}
          frame={model.frame ?? null}
          onTake={(frame) => {
            saved.change((m) => {
              m.frame = frame;
              m.grid = null;
              m.use = "frame";
            });
            setWay("view");
          }}
        />
      )}
      {use === "lines" && !saved.loading && (
        <LinesEditor
          stories={review.brief.stories ?? []}
          model={model}
          floors={answer?.floors ?? []}
          change={saved.change}
        />
      )}
      {drawn.points.length > 0 && way === "view" && (
        <section className={`scene ${css["below"] ?? ""}`} aria-label={strings.n3dViewOfTheModel}>
          <div className="scene-tools">
            <SegmentedControl
              aria-label={strings.view}
              value={view}
              data={["turn", "plan", strings.alongX, strings.alongY]}
              onChange={(v) => {
                setView(v as View);
              }}
            />
            <span className="quiet">{strings.dragToRotateScrollTo}</span>
            {pointed && (
              <button
                type="button"
                className="linklike"
                onClick={() => {
                  setPointed(null);
                }}
              >
                {strings.clearTheMark}
              </button>
            )}
            {picked && (
              <span className={css["aside"]} role="status">
                <b>{picked}</b>
                {member &&
                  [
                    "",
                    strings.fromTo(member.i, member.j),
                    `${member.section}, ${member.material}`,
                    ...(member.group ? [member.group] : []),
                  ].join(" · ")}
              </span>
            )}
          </div>
          <div className={css["area"]} role="img" aria-label={strings.modelSeen(drawn.segments.length, view)}>
            <Suspense fallback={<p className={`quiet ${css["padded"] ?? ""}`}>{strings.loadingTheView}</p>}>
              <Scene
                drawn={drawn}
                floors={floors}
                playing={false}
                phase={0}
                turning={false}
                view={view}
                marked={marked}
                picked={picked}
                onPick={setPicked}
                scheme={scheme}
              />
            </Suspense>
          </div>
          <p className="scene-legend">
            <GroupLegend groups={groups} />
            <span>
              <svg width={10} height={10} aria-hidden>
                <rect width={8} height={8} fill="var(--ink)" />
              </svg>
              {strings.supports}
            </span>
            {floors.some((f) => f.plate) && (
              <span>
                <svg width={20} height={10} aria-hidden>
                  <rect
                    x={0.5}
                    y={0.5}
                    width={19}
                    height={9}
                    fill="var(--ours)"
                    fillOpacity={0.12}
                    stroke="var(--ours)"
                    strokeOpacity={0.55}
                  />
                </svg>
                {strings.rigidFloors}
              </span>
            )}
          </p>
        </section>
      )}
      {answer && (
        <Warnings
          warnings={answer.warnings}
          onPoint={
            use === "frame"
              ? (w) => {
                  setPointed(w);
                  setWay("view");
                }
              : undefined
          }
        />
      )}
      {use === "frame" && model.frame && (
        <FrameOptions
          frame={model.frame}
          fromGrid={Boolean(model.grid)}
          change={(edit) => {
            saved.change((m) => {
              if (m.frame) m.frame = { ...m.frame, ...edit };
            });
          }}
        />
      )}
      <AnalysisFields model={model} change={saved.change} />
    </main>
  );
}
