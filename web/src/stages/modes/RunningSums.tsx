import { LineChart } from "echarts/charts";
import { GridComponent, MarkLineComponent, TooltipComponent } from "echarts/components";
import { use as register } from "echarts/core";
import { SVGRenderer } from "echarts/renderers";
import { useEffect } from "react";
import type { ModalAnswer, SubmittedModes } from "../../model/answers";
import { chartLooks, useChart } from "../../shared/useChart";
import { strings } from "./strings";

register([LineChart, GridComponent, TooltipComponent, MarkLineComponent, SVGRenderer]);

interface Props {
  answer: ModalAnswer;
  submitted: SubmittedModes | null;
  direction: "X" | "Y";
  scheme: string;
}

/** Running sums over the modes: ours as a solid step, theirs hollow, the target as a line. */
export function RunningSums({ answer, submitted, direction, scheme }: Props) {
  const { box, chart } = useChart();
  useEffect(() => {
    const instance = chart.current;
    if (!instance) return;
    const { colour, font, axis } = chartLooks();
    let sum = 0;
    const theirs = (submitted?.theirs ?? []).map((m, i) => [i + 1, 100 * (sum += m.mass_ratio[direction] ?? 0)]);
    instance.setOption(
      {
        animation: false,
        textStyle: font,
        grid: { left: 48, right: 24, top: 14, bottom: 36 },
        tooltip: {
          trigger: "axis",
          backgroundColor: colour("panel"),
          borderColor: colour("line"),
          textStyle: { ...font, color: colour("ink") },
          valueFormatter: (v: unknown) => `${Number(v).toFixed(1)} %`,
        },
        xAxis: {
          ...axis,
          type: "value",
          name: "mode",
          nameLocation: "middle",
          nameGap: 22,
          min: 0,
          max: answer.modes.length,
          minInterval: 1,
        },
        yAxis: { ...axis, type: "value", name: "%", min: 0, max: 100 },
        series: [
          {
            name: "ours",
            type: "line",
            step: "end",
            data: [[0, 0], ...answer.cumulative[direction].map((v, i) => [i + 1, 100 * v])],
            symbol: "circle",
            symbolSize: 5,
            lineStyle: { color: colour("ours"), width: 2.4 },
            itemStyle: { color: colour("ours") },
            markLine: {
              silent: true,
              symbol: "none",
              data: [{ yAxis: 100 * answer.target }],
              label: {
                formatter: `${String(Math.round(100 * answer.target))} %`,
                color: colour("limit"),
                position: "insideStartTop",
              },
              lineStyle: { color: colour("limit"), type: "dashed" },
            },
          },
          {
            name: "theirs",
            type: "line",
            step: "end",
            data: theirs,
            symbol: "circle",
            symbolSize: 8,
            lineStyle: { color: colour("theirs"), width: 1.4, type: "dashed" },
            itemStyle: { color: colour("ground"), borderColor: colour("theirs"), borderWidth: 1.6 },
          },
        ],
      },
      true,
    );
  }, [answer, submitted, direction, scheme, chart]);
  return <div ref={box} className="modes-chart" role="img" aria-label={strings.runningSumOfTheMass(direction)} />;
}
