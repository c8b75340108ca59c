import { init, type EChartsType } from "echarts/core";
import { useEffect, useRef } from "react";

/** A chart in a box that it fills, whatever the size of the box becomes. */
export function useChart() {
  const box = useRef<HTMLDivElement>(null);
  const chart = useRef<EChartsType | null>(null);
  useEffect(() => {
    if (!box.current) return;
    const instance = init(box.current, null, { renderer: "svg" });
    chart.current = instance;
    const fit = new ResizeObserver(() => {
      instance.resize();
    });
    fit.observe(box.current);
    return () => {
      fit.disconnect();
      instance.dispose();
    };
  }, []);
  return { box, chart };
}

/** The palette and the type of the page, as a chart needs them. */
export function chartLooks() {
  const style = getComputedStyle(document.documentElement);
  const colour = (name: string) => style.getPropertyValue(`--${name}`).trim();
  const font = { fontFamily: "Archivo Variable", color: colour("quiet"), fontSize: 11.5 };
  const axis = {
    axisLine: { lineStyle: { color: colour("quiet") } },
    axisLabel: font,
    nameTextStyle: font,
    splitLine: { lineStyle: { color: colour("line"), type: "dotted" as const } },
  };
  return { colour, font, axis };
}
