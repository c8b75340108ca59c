import { Loader, SegmentedControl, useComputedColorScheme } from "@mantine/core";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import { Derivation } from "../../bench/Derivation";
import { Steps } from "../../bench/derivation";
import { BuildingTests } from "../../editions/BuildingTests";
import { useReviewContext } from "../../review/ReviewContext";
import type { Across, AcrossCell } from "../../shared/api/client";
import { useAcross, useEditions } from "../../shared/api/queries";
import { figures, unitLabel } from "../../shared/numbers";
import { SymbolText } from "../../shared/Symbol";
import { Problems } from "../../shared/Problems";
import { asSeen, type View } from "../spectrum/curves";
import { cellOf, lineOf, shown, type Direction } from "./across";
import { Curves, type Line } from "./Curves";
import { ShearRatios } from "./ShearRatios";
import { ShearLog } from "./ShearLog";
import "./across.css";
import { strings } from "./strings";
import css from "./AcrossPage.module.css";

type Drawn = "elastic" | "reduced" | "coefficient";
const AXES: Record<View, [string, string]> = {
  acceleration: ["T, s", "Sa, g"],
  displacement: ["T, s", strings.sdMm],
  adrs: [strings.sdMm, "Sa, g"],
};

/** The same building under every chosen edition: what each gives, and why they part. */
export default function AcrossPage() {
  const { review } = useReviewContext();
  const editions = useEditions();
  const across = useAcross(review.id);
  const scheme = useComputedColorScheme("light");
  const [direction, setDirection] = useState<Direction>("X");
  const [drawn, setDrawn] = useState<Drawn>("elastic");
  const [view, setView] = useState<View>("acceleration");
  const [scale, setScale] = useState("linear");
  const [chosen, setChosen] = useState<{ edition: string; row: string } | null>(null);
  const data = across.data;
  const lines = useMemo(() => (data ? linesOf(data, drawn, direction, view) : []), [data, drawn, direction, view]);
  if (across.error)
    return (
      <main className="page">
        <Problems error={across.error} title={strings.theEditionsCannotBeCompared} />
      </main>
    );
  if (!data || !editions.data) return <Loader m="xl" size="sm" />;
  const titleOf = (id: string) => data.editions.find((e) => e.id === id)?.short ?? id;
  const incomplete = data.editions.filter((e) => e.needs.length > 0);
  const symbolOf = (edition: string, name: string) =>
    editions.data.find((e) => e.id === edition)?.inputs.find((i) => i.name === name)?.symbol ?? name;
  const row = data.rows.find((r) => r.id === (chosen?.row ?? "base_shear"));
  const at = chosen?.edition ?? data.governing;
  const cell = row ? cellOf(row.cells, at, direction) : null;
  const [xName, yName] = drawn === "coefficient" ? ["T, s", "V/W"] : AXES[view];
  return (
    <div className="split wide">
      <main className="stage">
        <div className="stage-head">
          <h2 className="stage-title">{strings.across}</h2>
          <span className="quiet">{strings.theSameBuildingUnderEach}</span>
          <span className="end">
            <SegmentedControl
              aria-label={strings.direction}
              value={direction}
              data={["X", "Y"]}
              onChange={(v) => {
                setDirection(v);
              }}
            />
          </span>
        </div>
        {data.editions.length === 1 && (
          <p className="quiet empty">
            {strings.noComparisonEditionIsSelected}
            <Link to="../brief">{strings.brief}</Link>
            {strings.comparedWith}
          </p>
        )}
        {incomplete.map((e) => (
          <p key={e.id} className="problem lacks">
            <b>{titleOf(e.id)}</b>
            {strings.stillNeeds}
            <SymbolText
              text={[
                ...new Set(e.needs.map((n) => `${symbolOf(e.id, n.name)}${n.direction ? ` ${n.direction}` : ""}`)),
              ].join(", ")}
            />
            {strings.enterItUnder}
            <Link to={e.id === data.governing ? "../ground" : "../brief"}>
              {e.id === data.governing ? strings.groundOrBrief : strings.brief}
            </Link>
            .
          </p>
        ))}
        <div className="across-table">
          <table className="plain">
            <thead>
              <tr>
                <th />
                {data.editions.map((e, i) => (
                  <th key={e.id} className="n" title={e.title}>
                    <Swatch index={i} /> {titleOf(e.id)}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {data.rows.map((r) => (
                <tr key={r.id}>
                  <th scope="row">
                    {r.label}
                    {unitOf(r, direction)}
                  </th>
                  {data.editions.map((e, i) => {
                    const cell = cellOf(r.cells, e.id, direction);
                    const on = at === e.id && row?.id === r.id;
                    return (
                      <td key={e.id} className={(i === 0 ? "n ours" : "n") + (on ? " on" : "")}>
                        {cell ? (
                          <CellButton
                            cell={cell}
                            pressed={on}
                            label={`${r.label}, ${titleOf(e.id)}: ${shown(cell)}`}
                            onClick={() => {
                              setChosen({ edition: e.id, row: r.id });
                            }}
                          />
                        ) : (
                          <span className="quiet">–</span>
                        )}
                      </td>
                    );
                  })}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        <ShearRatios across={data} direction={direction} titleOf={titleOf} />
        {lines.length > 0 && (
          <>
            <div className={`stage-head ${css["below"] ?? ""}`}>
              <h3 className={`part ${css["spaced"] ?? ""}`}>
                {drawn === "coefficient"
                  ? strings.baseShearOverWeightAgainst(direction)
                  : drawn === "reduced"
                    ? strings.spectraReducedForStrength(direction)
                    : strings.elasticSpectra}
              </h3>
              <span className="end">
                <SegmentedControl
                  aria-label={strings.curves}
                  value={drawn}
                  onChange={(v) => {
                    setDrawn(v);
                  }}
                  data={[
                    { value: "elastic", label: strings.elastic },
                    { value: "reduced", label: strings.reduced },
                    { value: "coefficient", label: "V/W" },
                  ]}
                />
                {drawn !== "coefficient" && (
                  <SegmentedControl
                    aria-label={strings.view}
                    value={view}
                    onChange={(v) => {
                      setView(v);
                    }}
                    data={[
                      { value: "acceleration", label: strings.accel },
                      { value: "displacement", label: strings.displ },
                      { value: "adrs", label: strings.adrs },
                    ]}
                  />
                )}
                <SegmentedControl
                  aria-label={strings.scale}
                  value={scale}
                  onChange={setScale}
                  data={["linear", "log"]}
                />
              </span>
            </div>
            <Curves
              lines={lines}
              xName={xName}
              yName={yName}
              longest={drawn === "coefficient" ? 6 : view === "adrs" ? undefined : 4}
              log={scale === "log"}
              scheme={scheme}
              label={[
                strings.curvesOf(drawn, lines.map((l) => l.title).join(", ")),
                strings.theTableAboveListsThe,
              ].join("; ")}
            />
            <p className="across-legend">
              {lines.map((l) => (
                <span key={l.id}>
                  <Swatch index={l.index} /> {l.title}
                </span>
              ))}
            </p>
          </>
        )}
        <ShearLog
          stories={review.brief.stories ?? []}
          direction={direction}
          shears={data.editions.map((e) => ({
            id: e.id,
            title: titleOf(e.id),
            X: data.story_shears[e.id]?.X ?? null,
            Y: data.story_shears[e.id]?.Y ?? null,
          }))}
        />
        <Rules data={data} titleOf={titleOf} />
      </main>
      <aside className="bench" aria-label={strings.derivation}>
        {row && cell ? (
          <>
            <p className="bench-place">
              {data.editions.find((e) => e.id === at)?.title}
              {cell.step.includes(".") && ` · ${direction}`}
            </p>
            <h3 className="bench-title">
              {row.label}
              <span className="bench-symbol">
                <SymbolText text={cell.symbol} />
              </span>
            </h3>
            <p className="across-value">
              {shown(cell)}
              {cell.value !== null && cell.unit && <span className="quiet"> {unitLabel(cell.unit)}</span>}
            </p>
            {cell.value === null && cell.note !== "no limit" && <p className="bench-note off">{cell.note}</p>}
            {cell.step && (
              <Derivation
                id={cell.step}
                steps={new Steps(data.steps[at] ?? [])}
                index={null}
                checks={[]}
                onSelect={() => undefined}
              />
            )}
          </>
        ) : (
          <p className="quiet">{strings.selectAValueInThe}</p>
        )}
      </aside>
    </div>
  );
}

function Swatch({ index }: { index: number }) {
  const { colour, dash } = lineOf(index);
  return (
    <svg width={24} height={8} aria-hidden className={css["spaced2"]}>
      <line
        x1={0}
        x2={24}
        y1={4}
        y2={4}
        stroke={`var(--${colour})`}
        strokeWidth={index === 0 ? 2.6 : 1.8}
        strokeDasharray={dash}
      />
    </svg>
  );
}

function CellButton({
  cell,
  label,
  pressed,
  onClick,
}: {
  cell: AcrossCell;
  label: string;
  pressed: boolean;
  onClick: () => void;
}) {
  const long = typeof cell.value === "string" && cell.value.length > 14;
  return (
    <button
      type="button"
      className={["across-cell", isOpen(cell) && "open", forbids(cell) && "limit"].filter(Boolean).join(" ")}
      aria-label={label}
      aria-pressed={pressed}
      onClick={onClick}
      title={typeof cell.value === "number" ? String(cell.value) : cell.note}
    >
      <span className="across-by">
        <SymbolText text={cell.governed_by ?? cell.symbol} />
      </span>
      <span>
        {typeof cell.value === "string" ? (
          <SymbolText text={long ? (cell.value.split(/[:,]/)[0] ?? "") : cell.value} />
        ) : (
          shown(cell)
        )}
      </span>
    </button>
  );
}

/** ", kN" where all editions have the value in the same unit. */
function unitOf(row: Across["rows"][number], direction: Direction): string {
  const units = new Set(row.cells.flatMap((c) => cellOf(row.cells, c.edition, direction)?.unit ?? []));
  const [unit] = units;
  return units.size === 1 && unit ? `, ${unitLabel(unit)}` : "";
}

/** Whether the code forbids what the brief has. */
const isOpen = (cell: AcrossCell) => cell.value === null && cell.note !== "no limit";
const forbids = (cell: AcrossCell) => typeof cell.value === "string" && /^(not permitted|too tall)/.test(cell.value);

/** What the editions ask in words: directions together, modes, combinations of loads. */
function Rules({ data, titleOf }: { data: Across; titleOf: (id: string) => string }) {
  return (
    <section aria-label={strings.rulesInWords}>
      <h3 className="part">{strings.rulesInWords}</h3>
      {data.editions.map((e) => {
        const combinations = e.words.load_combinations ?? [];
        return (
          <details key={e.id} className="rules">
            <summary>{titleOf(e.id)}</summary>
            {(
              [
                [strings.combinationOfDirections, e.words.direction_rule],
                [strings.modalAnalysis, e.words.modal_rules],
                [strings.staticMethod, e.words.static_notes],
                [strings.driftAndSecondOrder, e.words.drift_notes],
              ] as const
            ).map(
              ([title, said]) =>
                said &&
                said.length > 0 && (
                  <div key={title}>
                    <h4>{title}</h4>
                    <ul className="notes">
                      {said.map((t) => (
                        <li key={t}>
                          <SymbolText text={t} />
                        </li>
                      ))}
                    </ul>
                  </div>
                ),
            )}
            <BuildingTests described={e} open />
            {combinations.length > 0 && (
              <div>
                <h4>{strings.loadCombinationsWithTheSeismic}</h4>
                <ul className="notes">
                  {combinations.map((c, i) => (
                    <li key={`${c.name} ${String(i)}`}>
                      <b>{c.name}</b>:{" "}
                      {Object.entries(c.factors).map(([load, f], j) => (
                        <span key={load}>
                          {j > 0 && " + "}
                          {figures(f, 4)} <SymbolText text={load} />
                        </span>
                      ))}
                    </li>
                  ))}
                </ul>
              </div>
            )}
          </details>
        );
      })}
    </section>
  );
}

function linesOf(data: Across, drawn: Drawn, direction: Direction, view: View): Line[] {
  return data.editions.flatMap((e, index) => {
    const line = (points: [number, number][]) => [{ id: e.id, title: e.short, index, points }];
    if (drawn === "coefficient") {
      const cell = data.coefficients[e.id]?.[direction];
      return cell ? line(cell.T.map((t, i) => [t, cell.coefficient[i] ?? 0])) : [];
    }
    const spectrum = data.spectra[e.id];
    const ordinates = drawn === "elastic" ? spectrum?.elastic : spectrum?.reduced[direction];
    return spectrum && ordinates
      ? line(spectrum.T.flatMap((t, i) => (t <= 4 ? [asSeen(view, t, ordinates[i] ?? 0)] : [])))
      : [];
  });
}
