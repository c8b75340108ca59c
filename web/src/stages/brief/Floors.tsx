import { Button, Select } from "@mantine/core";
import { useState } from "react";
import { useModel, useRun } from "../../model/useModel";
import type { Story } from "../../shared/api/client";
import { Corners } from "../../shared/Corners";
import { SymbolText } from "../../shared/Symbol";
import { Problems } from "../../shared/Problems";
import { ValueInput } from "../../shared/ValueInput";
import { strings } from "./strings";
import css from "./Floors.module.css";

interface Props {
  reviewId: string;
  briefNumber: number;
  stories: Story[];
  onChange: (stories: Story[]) => void;
  /** whether an edition requires the stiffness in plan, for offsets of the system */
  stiffness: boolean;
  offsets: boolean;
}

interface PlanStiffness {
  plan_stiffness: { story: string; e_0: { X: number; Y: number }; r: { X: number; Y: number }; l_s: number }[];
}

const ASKED = [
  ["e_0", "X"],
  ["e_0", "Y"],
  ["r", "X"],
  ["r", "Y"],
] as const;
const OFFSETS = [
  { value: "none", label: strings.none },
  { value: "in_plane", label: strings.inItsPlane },
  { value: "out_of_plane", label: strings.outOfItsPlane },
  { value: "there", label: strings.kindNotKnown },
];
const offsetOf = (s: Story) => (typeof s.offset === "string" ? s.offset : s.offset ? "there" : "none");
const rounded = (value: number) => Number(value.toPrecision(4));

/** The floors in plan: dimensions, outlines, and where an edition requires it their stiffness against twisting. */
export function Floors({ reviewId, briefNumber, stories, onChange, stiffness, offsets }: Props) {
  // stiffness is kept whole or not at all; what is typed of it waits here
  const [typed, setTyped] = useState<Record<string, Record<string, number | null>>>({});
  const set = (i: number, edit: Partial<Story>) => {
    onChange(stories.map((s, j) => (j === i ? { ...s, ...edit } : s)));
  };
  if (stories.length === 0) return null;
  const setPlan = (i: number, side: 0 | 1, v: number | null) => {
    const other = stories[i]?.plan?.[1 - side];
    if (v === null) set(i, { plan: null });
    else set(i, { plan: side === 0 ? [v, other ?? v] : [other ?? v, v] });
  };
  const values = (s: Story): Record<string, number | null> => ({
    e_0X: s.plan_stiffness?.e_0.X ?? null,
    e_0Y: s.plan_stiffness?.e_0.Y ?? null,
    rX: s.plan_stiffness?.r.X ?? null,
    rY: s.plan_stiffness?.r.Y ?? null,
    l_s: s.plan_stiffness?.l_s ?? null,
    ...typed[s.name],
  });
  const setStiffness = (i: number, s: Story, name: string, v: number | null) => {
    const next = { ...values(s), [name]: v };
    const complete = ASKED.every(([n, d]) => next[n + d] !== null);
    setTyped({ ...typed, [s.name]: complete ? {} : next });
    if (complete)
      set(i, {
        plan_stiffness: {
          e_0: { X: next.e_0X ?? 0, Y: next.e_0Y ?? 0 },
          r: { X: next.rX ?? 0, Y: next.rY ?? 0 },
          l_s: next.l_s,
        },
      });
    else if (s.plan_stiffness && ASKED.every(([n, d]) => next[n + d] === null)) set(i, { plan_stiffness: null });
  };
  const withPlan = stories.filter((s) => s.plan).length;
  return (
    <details className="system-parts">
      <summary>
        {strings.floorsInPlan}
        {withPlan === 0
          ? strings.noDimensionsYet
          : withPlan === stories.length
            ? strings.allWithDimensions
            : strings.ofWithDimensions(withPlan, stories.length)}
        {stories.some((s) => s.corners) && strings.outlines}
        {stories.some((s) => s.plan_stiffness) && strings.stiffnessInPlan}
      </summary>
      <div className={css["spaced"]}>
        <table className={`plain ${css["width"] ?? ""}`}>
          <thead>
            <tr>
              <th>{strings.story}</th>
              <th>{strings.alongXM}</th>
              <th>{strings.alongYM}</th>
              <th>{strings.cornersIfNotRectangularM}</th>
              {stiffness &&
                ["e_0X", "e_0Y", "r_X", "r_Y", "l_s"].map((n) => (
                  <th key={n}>
                    <SymbolText text={n} />, m
                  </th>
                ))}
              {offsets && <th>{strings.lateralSystemOffsetInIt}</th>}
            </tr>
          </thead>
          <tbody>
            {stories
              .map((s, i) => ({ s, i }))
              .reverse()
              .map(({ s, i }) => (
                <tr key={s.name}>
                  <td>{s.name}</td>
                  <td>
                    <ValueInput
                      aria-label={strings.planOfAlongX(s.name)}
                      w={84}
                      placeholder={strings.notEntered}
                      value={s.plan?.[0]}
                      onCommit={(v) => {
                        setPlan(i, 0, v);
                      }}
                    />
                  </td>
                  <td>
                    <ValueInput
                      aria-label={strings.planOfAlongY(s.name)}
                      w={84}
                      placeholder={strings.notEntered}
                      value={s.plan?.[1]}
                      onCommit={(v) => {
                        setPlan(i, 1, v);
                      }}
                    />
                  </td>
                  <td>
                    <Corners
                      bare
                      label={strings.cornersOf(s.name)}
                      corners={s.corners ?? []}
                      known={[]}
                      onCommit={(corners) => {
                        set(i, { corners });
                      }}
                    />
                  </td>
                  {stiffness &&
                    (["e_0X", "e_0Y", "rX", "rY", "l_s"] as const).map((n) => (
                      <td key={n}>
                        <ValueInput
                          aria-label={strings.of(n, s.name)}
                          w={78}
                          placeholder={n === "l_s" ? strings.fromPlan : "–"}
                          value={values(s)[n]}
                          onCommit={(v) => {
                            setStiffness(i, s, n, v);
                          }}
                        />
                      </td>
                    ))}
                  {offsets && (
                    <td>
                      <Select
                        aria-label={strings.systemOffsetIn(s.name)}
                        w={150}
                        size="xs"
                        allowDeselect={false}
                        value={offsetOf(s)}
                        data={OFFSETS}
                        onChange={(v) => {
                          set(i, { offset: v === "in_plane" || v === "out_of_plane" ? v : v === "there" });
                        }}
                      />
                    </td>
                  )}
                </tr>
              ))}
          </tbody>
        </table>
      </div>
      {stiffness && (
        <FromModel
          reviewId={reviewId}
          briefNumber={briefNumber}
          onTake={(floors) => {
            setTyped({});
            onChange(
              stories.map((s) => {
                const f = floors.find((o) => o.story === s.name);
                return f
                  ? {
                      ...s,
                      plan_stiffness: {
                        e_0: { X: rounded(f.e_0.X), Y: rounded(f.e_0.Y) },
                        r: { X: rounded(f.r.X), Y: rounded(f.r.Y) },
                        l_s: rounded(f.l_s),
                      },
                    }
                  : s;
              }),
            );
          }}
        />
      )}
    </details>
  );
}

/** Stiffness in plan of the reference model, written into the stories when asked. */
function FromModel({
  reviewId,
  briefNumber,
  onTake,
}: {
  reviewId: string;
  briefNumber: number;
  onTake: (floors: PlanStiffness["plan_stiffness"]) => void;
}) {
  const { number } = useModel(reviewId);
  const [asked, setAsked] = useState(false);
  const { answer, run, error } = useRun<PlanStiffness>(
    reviewId,
    "irregularity",
    number,
    briefNumber,
    asked && number > 0,
  );
  if (number === 0) return <p className={`quiet ${css["spaced2"] ?? ""}`}>{strings.withAReferenceModelOn}</p>;
  return (
    <div className={css["below"]}>
      {!asked && (
        <Button
          variant="default"
          size="compact-sm"
          onClick={() => {
            setAsked(true);
          }}
        >
          {strings.computeERLS}
        </Button>
      )}
      {asked &&
        (answer ? (
          <Button
            size="compact-sm"
            onClick={() => {
              onTake(answer.plan_stiffness);
              setAsked(false);
            }}
          >
            {strings.useThemForFloors(answer.plan_stiffness.length)}
          </Button>
        ) : (
          <span className="quiet">
            {run?.status === "refused" ? strings.theModelCannotProvideThem : strings.computing}
          </span>
        ))}
      <Problems error={error} title={strings.notComputed} />
      {run?.problems.map((p) => (
        <p key={p.path} className={`off ${css["spaced3"] ?? ""}`}>
          {p.message}. {p.remedy}
        </p>
      ))}
    </div>
  );
}
