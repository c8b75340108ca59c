import { LineChart } from "echarts/charts";
import { GridComponent, TooltipComponent } from "echarts/components";
import { use as register } from "echarts/core";
import { SVGRenderer } from "echarts/renderers";
import { useEffect } from "react";
import { chartLooks, useChart } from "../../shared/useChart";
import { figures } from "../../shared/numbers";
import { lineOf } from "./across";
import css from "./Curves.module.css";

register([LineChart, GridComponent, TooltipComponent, SVGRenderer]);

export interface Line {
  id: string;
  title: string;
  /** place among the editions, which gives the line its looks */
  index: number;
  points: [number, number][];
}

interface Props {
  lines: Line[];
  xName: string;
  yName: string;
  /** s, where the axis of periods ends */
  longest: number | undefined;
  log: boolean;
  scheme: string;
  label: string;
}

/** Curves of several editions over each other; the governing one is the thickest. */
export function Curves({ lines, xName, yName, longest, log, scheme, label }: Props) {
  const { box, chart } = useChart();
  useEffect(() => {
    const instance = chart.current;
    if (!instance) return;
    const { colour, font, axis } = chartLooks();
    const scale = log ? ("log" as const) : ("value" as const);
    // a logarithmic axis cannot show zeros
    const drawn = (p: [number, number]) => !log || (p[0] > 0 && p[1] > 0);
    const smallest = Math.min(...lines.flatMap((l) => l.points.filter(drawn).map((p) => p[0])));
    instance.setOption(
      {
        animation: false,
        textStyle: font,
        grid: { left: 58, right: 18, top: 30, bottom: 42 },
        tooltip: {
          trigger: "axis",
          backgroundColor: colour("panel"),
          borderColor: colour("line"),
          textStyle: { ...font, color: colour("ink") },
          formatter: (raw: unknown) => {
            const items = raw as { seriesName: string; data: [number, number]; axisValue: number }[];
            const at = `${xName.split(",")[0] ?? ""} ${figures(items[0]?.axisValue ?? 0, 3)}`;
            return [at, ...items.map((i) => `${i.seriesName} <b>${figures(i.data[1])}</b>`)].join("<br>");
          },
        },
        xAxis: {
          ...axis,
          type: scale,
          name: xName,
          nameLocation: "middle",
          nameGap: 26,
          ...(log ? { min: smallest } : { min: 0, ...(longest === undefined ? {} : { max: longest }) }),
        },
        yAxis: { ...axis, type: scale, name: yName, nameGap: 12 },
        series: lines.map((l) => {
          const look = lineOf(l.index);
          return {
            name: l.title,
            type: "line",
            data: l.points.filter(drawn),
            showSymbol: false,
            z: l.index === 0 ? 3 : 2,
            lineStyle: {
              color: colour(look.colour),
              width: l.index === 0 ? 2.6 : 1.7,
              type: look.dash ? look.dash.split(" ").map(Number) : "solid",
            },
            itemStyle: { color: colour(look.colour) },
          };
        }),
      },
      { notMerge: true },
    );
  }, [chart, lines, xName, yName, longest, log, scheme]);
  return <div ref={box} className={css["area"]} role="img" aria-label={label} />;
}
