import type { History } from "../../shared/api/client";
import { MarkAt, shapeOf } from "../../shared/Mark";
import { strings } from "./strings";

const STEP = 26;

/** How the worst check of a finding stood in each submission: a small line of marks. */
export function HistoryMarks({ marks }: { marks: History["marks"] }) {
  const words = marks.map((m) => strings.inSubmission(m.submission, m.verdict ?? strings.nothingThere)).join(", ");
  return (
    <svg width={marks.length * STEP} height={16} role="img" aria-label={words}>
      <title>{words}</title>
      <line x1={STEP / 2} x2={(marks.length - 0.5) * STEP} y1={8} y2={8} stroke="var(--line)" />
      {marks.map((mark, i) => (
        <MarkAt key={mark.submission} shape={shape(mark)} x={(i + 0.5) * STEP} y={8} />
      ))}
    </svg>
  );
}

const shape = ({ verdict, role }: History["marks"][number]) =>
  verdict === null ? "open" : shapeOf({ verdict, role } as Parameters<typeof shapeOf>[0]);
