import type { DeskRow } from "../shared/api/client";
import { MarkAt, shapeOf } from "../shared/Mark";
import { counted } from "../shared/numbers";
import { offset, REACH } from "../sheet/layout";

const WIDTH = 96;
const HEIGHT = 44;
const MARK = 0.62;

/** The plumb line of a review in small: where deviations start, by stage, and how far they are out. */
export function SmallPlumb({ marks, stages }: { marks: DeskRow["plumb"]; stages: readonly string[] }) {
  // nothing was rechecked yet, or not since this line is drawn: a line without marks would say that all is in plumb
  if (!marks) return <span />;
  const middle = WIDTH / 2;
  const step = (HEIGHT - 10) / Math.max(stages.length, 1);
  const words = counted(marks.length, "mark");
  return (
    <svg width={WIDTH} height={HEIGHT} role="img" aria-label={words}>
      <line x1={middle} x2={middle} y1={2} y2={HEIGHT - 6} stroke="var(--ink)" strokeWidth={1} />
      <path d={`M${String(middle - 3)} ${String(HEIGHT - 8)}h6l-3 7z`} fill="var(--ink)" />
      {marks.map((mark, i) => {
        const x = middle + (offset(mark.multiples ?? 0) / REACH) * (middle - 5);
        const y = 4 + step * (Math.max(stages.indexOf(mark.stage), 0) + 0.5);
        const shape = shapeOf({ verdict: mark.verdict, role: "origin" } as Parameters<typeof shapeOf>[0]);
        return (
          <g key={i} transform={`translate(${String(x)} ${String(y)}) scale(${String(MARK)})`}>
            <MarkAt shape={shape} x={0} y={0} />
          </g>
        );
      })}
    </svg>
  );
}
