import { figures } from "../../shared/numbers";
import type { CaseMoved } from "./matrix";

const SIZE = 300;
const HEIGHT = 232;

interface Props {
  moved: CaseMoved;
  story: number;
  name: string;
  /** plan dimensions of the story, m */
  plan: [number, number] | null | undefined;
}

/** One or two digits that a picture's scale is told in. */
const round = (value: number): number => {
  const power = 10 ** Math.floor(Math.log10(value));
  return Math.max(1, Math.round(value / power) * power);
};

/** A story as its ends move in a case, in plan, to a stated exaggeration. */
export function Turning({ moved, story, name, plan }: Props) {
  const ends = moved.displacement.length ? moved.displacement : moved.drift;
  const what = moved.displacement.length ? "displacements" : "story drifts";
  const [one, two] = [ends[0]?.[story] ?? null, ends[1]?.[story] ?? null];
  const [bx, by] = plan ?? [1.5, 1];
  const scale = Math.min(150 / bx, 110 / by);
  const [w, h] = [bx * scale, by * scale];
  const [x0, y0] = [(SIZE - w) / 2 - 10, 44 + (120 - h) / 2];
  const along = moved.direction;
  const most = Math.max(Math.abs(one ?? 0), Math.abs(two ?? 0));
  // the farther end moves a quarter of the picture
  const times = plan && most > 0 ? round(34 / (most * scale)) : 0;
  const shift = (v: number | null) => (v ?? 0) * times * scale;
  // ends lie along the axis across the movement: for X at the lower and upper edge, for Y at the left and right one
  const corners: [number, number, number][] =
    along === "X"
      ? [
          [x0, y0 + h, 1],
          [x0 + w, y0 + h, 1],
          [x0 + w, y0, 2],
          [x0, y0, 2],
        ]
      : [
          [x0, y0 + h, 1],
          [x0, y0, 1],
          [x0 + w, y0, 2],
          [x0 + w, y0 + h, 2],
        ];
  const points = (by: (end: number) => number) =>
    corners
      .map(([x, y, end]) => (along === "X" ? [x + by(end), y] : [x, y - by(end)]))
      .map((p) => p.join(","))
      .join(" ");
  return (
    <figure className="turning">
      <figcaption>
        <b>{name}</b> in <i className="theirs">{moved.case}</i>
        <br />
        <span className="quiet">
          {ends.length === 0
            ? "greatest and mean only: the ends are not stated"
            : `plan, ${what}${times ? ` ${String(times)} times` : ""}`}
        </span>
      </figcaption>
      <svg width={SIZE} height={HEIGHT} role="img" aria-label={`Plan of ${name}, moved along ${along}`}>
        <polygon points={points(() => 0)} fill="none" stroke="var(--quiet)" strokeDasharray="4 4" />
        {ends.length > 0 && (
          <polygon
            points={points((end) => shift(end === 1 ? one : two))}
            fill="none"
            stroke="var(--theirs)"
            strokeWidth={1.8}
          />
        )}
        {ends.length > 0 &&
          ([1, 2] as const).map((end) => {
            const value = end === 1 ? one : two;
            return (
              <g key={end} transform={`translate(${String(end === 1 ? 16 : 168)}, ${String(HEIGHT - 34)})`}>
                <text className="turning-small">
                  end {end} {along === "X" ? (end === 1 ? "(lower)" : "(upper)") : end === 1 ? "(left)" : "(right)"}
                </text>
                <text y={20} className="theirs turning-value" fill="var(--theirs)">
                  {value === null ? "–" : `${figures(1000 * value)} mm`}
                </text>
              </g>
            );
          })}
      </svg>
    </figure>
  );
}
