import { LineChart, ScatterChart } from "echarts/charts";
import { GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent } from "echarts/components";
import { use as register } from "echarts/core";
import { SVGRenderer } from "echarts/renderers";
import { useEffect } from "react";
import { chartLooks, useChart } from "../../shared/useChart";
import { figures, percent } from "../../shared/numbers";
import { offset, REACH } from "../../sheet/layout";
import { asSeen, type Submitted, type View } from "./curves";
import { strings } from "./strings";
import css from "./Chart.module.css";

register([LineChart, ScatterChart, GridComponent, TooltipComponent, MarkLineComponent, MarkAreaComponent, SVGRenderer]);

interface Props {
  T: number[];
  design: number[];
  reduced: number[] | null;
  /** the design curve without what is assumed */
  before: number[] | null;
  submitted: Submitted[];
  periods: { name: string; T: number; theirs: boolean }[];
  view: View;
  log: boolean;
  scheme: string;
  onSelect: (id: string) => void;
}

const AXES: Record<View, [string, string]> = {
  acceleration: ["T, s", "S_a, g"],
  displacement: ["T, s", strings.sDMm],
  adrs: [strings.sDMm, "S_a, g"],
};

/** Our curve, their points hollow, the marks of each direction's period, and the deviation by period underneath. */
export function Chart({ T, design, reduced, before, submitted, periods, view, log, scheme, onSelect }: Props) {
  const { box, chart } = useChart();
  useEffect(() => {
    const instance = chart.current;
    if (!instance) return;
    const { colour, font, axis } = chartLooks();
    const [xName, yName] = AXES[view];
    // a logarithmic axis cannot show a point at zero
    const drawn = (x: number) => !log || x > 0;
    const line = (values: number[]) => T.map((t, i) => asSeen(view, t, values[i] ?? 0)).filter(([x]) => drawn(x));
    const xAxis = (gridIndex: number, name: string) => ({
      ...axis,
      gridIndex,
      type: log ? ("log" as const) : ("value" as const),
      name,
      nameLocation: "middle" as const,
      nameGap: 24,
      min: log ? (view === "adrs" ? 0.1 : 0.01) : 0,
      ...(view === "adrs" ? {} : { max: T.at(-1) }),
    });
    const deviations = submitted
      .filter((p) => drawn(asSeen(view, p.T, p.S_a)[0]))
      .map((p) => {
        const ours = p.check.independent;
        return {
          value: [asSeen(view, p.T, p.S_a)[0], offset(ours?.multiples ?? 0)],
          id: p.check.id,
          itemStyle: {
            color:
              p.check.verdict === "agrees" ? colour("ours") : p.check.role === "origin" ? colour("off") : "transparent",
            borderColor: p.check.verdict === "agrees" ? colour("ours") : colour("off"),
            borderWidth: 1.5,
          },
          symbol: p.check.verdict === "agrees" ? "circle" : "diamond",
          symbolSize: p.check.verdict === "agrees" ? 6 : 11,
        };
      });
    // the same scale as the plumb sheet's, so that one point far out does not flatten the rest
    const labelled = new Map(
      [-100, -10, 0, 10, 100].map((m) => [
        Math.round(offset(m) * 1e6),
        m === 0 ? "0" : `${m < 0 ? "−" : "+"}${String(Math.abs(m))}×`,
      ]),
    );
    const marks = [...labelled.keys()].map((k) => k / 1e6);
    const shownPeriods = view === "adrs" ? [] : periods;
    instance.setOption(
      {
        animation: false,
        textStyle: font,
        grid: [
          { left: 58, right: 20, top: 38, height: "53%" },
          { left: 58, right: 20, bottom: 44, height: "20%" },
        ],
        tooltip: {
          trigger: "item",
          backgroundColor: colour("panel"),
          borderColor: colour("line"),
          textStyle: { ...font, color: colour("ink") },
          formatter: (raw: unknown) => {
            const item = raw as { data?: { id?: string } | unknown[]; seriesName?: string };
            const point = submitted.find((p) => p.check.id === (item.data as { id?: string } | undefined)?.id);
            if (!point) return item.seriesName ?? "";
            const ours = point.check.independent?.value;
            const deviation = point.check.independent?.deviation ?? null;
            return [
              `T ${figures(point.T, 3)} s`,
              strings.theirsIIGOurs(figures(point.S_a), ours === undefined ? "–" : figures(ours)),
              deviation === null ? "" : percent(deviation),
            ].join("<br>");
          },
        },
        xAxis: [xAxis(0, ""), xAxis(1, xName)],
        yAxis: [
          { ...axis, gridIndex: 0, type: "value", name: yName.replace("_", ""), nameGap: 16, min: 0 },
          {
            ...axis,
            gridIndex: 1,
            type: "value",
            name: strings.deviationInTolerances,
            nameGap: 6,
            nameTextStyle: { ...font, align: "left" },
            min: -REACH,
            max: REACH,
            splitLine: { show: false },
            axisTick: { customValues: marks },
            axisLabel: {
              ...font,
              customValues: marks,
              formatter: (v: number) => labelled.get(Math.round(v * 1e6)) ?? "",
            },
          },
        ],
        series: [
          ...(before
            ? [
                {
                  name: strings.before,
                  type: "line",
                  data: line(before),
                  showSymbol: false,
                  lineStyle: { color: colour("ours"), width: 1.2, type: "dotted" },
                  z: 1,
                },
              ]
            : []),
          {
            name: strings.oursDesignSpectrum,
            type: "line",
            data: line(design),
            showSymbol: false,
            lineStyle: { color: colour("ours"), width: 2.4 },
            z: 2,
            markLine: {
              symbol: "none",
              silent: true,
              animation: false,
              data: shownPeriods.map((p) => ({
                xAxis: p.T,
                label: {
                  formatter: p.name,
                  position: "end",
                  padding: p.theirs ? [0, 0, 15, 0] : 0,
                  color: p.theirs ? colour("theirs") : colour("ours"),
                  fontStyle: p.theirs ? "italic" : "normal",
                  fontFamily: p.theirs ? "Source Serif 4" : "Archivo Variable",
                  rotate: 0,
                  fontSize: 11.5,
                },
                lineStyle: {
                  color: p.theirs ? colour("theirs") : colour("ours"),
                  type: p.theirs ? "dashed" : "solid",
                  width: 1,
                },
              })),
            },
          },
          ...(reduced
            ? [
                {
                  name: strings.oursReducedForStrength,
                  type: "line" as const,
                  data: line(reduced),
                  showSymbol: false,
                  lineStyle: { color: colour("ours"), width: 1.4, type: "dashed" as const },
                },
              ]
            : []),
          {
            name: "theirs",
            type: "scatter",
            symbol: "circle",
            symbolSize: 8,
            z: 3,
            data: submitted
              .filter((p) => drawn(asSeen(view, p.T, p.S_a)[0]))
              .map((p) => ({ value: asSeen(view, p.T, p.S_a), id: p.check.id })),
            itemStyle: { color: colour("ground"), borderColor: colour("theirs"), borderWidth: 1.6 },
          },
          {
            name: "deviation",
            type: "scatter",
            xAxisIndex: 1,
            yAxisIndex: 1,
            data: deviations,
            markArea: {
              silent: true,
              animation: false,
              itemStyle: { color: colour("band") },
              data: [[{ yAxis: -1 }, { yAxis: 1 }]],
            },
            markLine: {
              symbol: "none",
              silent: true,
              animation: false,
              label: { show: false },
              lineStyle: { color: colour("ink"), width: 1.2, type: "solid" },
              data: [{ yAxis: 0 }],
            },
          },
        ],
      },
      { notMerge: true },
    );
    instance.off("click");
    instance.on("click", (event) => {
      const id = (event.data as { id?: string } | undefined)?.id;
      if (id) onSelect(id);
    });
  }, [chart, T, design, reduced, before, submitted, periods, view, log, scheme, onSelect]);
  return <div ref={box} className={css["area"]} role="img" aria-label={strings.designSpectrumOurCurveAnd} />;
}
