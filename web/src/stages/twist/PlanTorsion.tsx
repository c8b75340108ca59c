import { figures } from "../../shared/numbers";
import type { CaseMoved } from "./caseGrid";
import { strings } from "./strings";

const SIZE = 300;
const HEIGHT = 206;

interface Props {
  moved: CaseMoved;
  story: number;
  name: string;
  /** plan dimensions of the story, m */
  plan: [number, number] | null | undefined;
}

type Pair = [number | null, number | null];

/** One or two digits that a picture's scale is stated in. */
const round = (value: number): number => {
  const power = 10 ** Math.floor(Math.log10(value));
  return Math.max(1, Math.round(value / power) * power);
};

/** A story as its ends move in a case, in plan, to a stated exaggeration. */
export function PlanTorsion({ moved, story, name, plan }: Props) {
  const ends = moved.displacement.length ? moved.displacement : moved.drift;
  const what = moved.displacement.length ? "displacements" : strings.storyDrifts;
  const [one, two] = [ends[0]?.[story] ?? null, ends[1]?.[story] ?? null];
  const mine = moved.displacement.length ? moved.displacement_own : moved.drift_own;
  // the ends of ours are in the order in which theirs fit them better
  const [a, b] = [mine[0]?.[story] ?? null, mine[1]?.[story] ?? null];
  const far = (p: number | null, q: number | null) => Math.abs((p ?? 0) - (one ?? 0)) + Math.abs((q ?? 0) - (two ?? 0));
  const ordered: Pair | null = a === null || b === null ? null : far(a, b) <= far(b, a) ? [a, b] : [b, a];
  const [bx, by] = plan ?? [1.5, 1];
  const scale = Math.min(150 / bx, 110 / by);
  const [w, h] = [bx * scale, by * scale];
  const [x0, y0] = [(SIZE - w) / 2 - 10, 30 + (120 - h) / 2];
  const along = moved.direction;
  const most = Math.max(...[one, two, a, b].map((v) => Math.abs(v ?? 0)));
  // the farther end moves a quarter of the picture
  const times = plan && most > 0 ? round(34 / (most * scale)) : 0;
  // the floor is rigid: what its ends differ by turns it, and its other edges with it
  const corner = (x: number, y: number, ends: Pair | null): string => {
    if (!ends) return `${String(x0 + x)},${String(y0 + y)}`;
    const [u1, u2] = [(ends[0] ?? 0) * times * scale, (ends[1] ?? 0) * times * scale];
    const [mean, turn] = [(u1 + u2) / 2, (u1 - u2) / (along === "X" ? h : w)];
    const [dx, dy] = [x - w / 2, y - h / 2];
    return along === "X"
      ? `${String(x0 + x + mean + turn * dy)},${String(y0 + y - turn * dx)}`
      : `${String(x0 + x - turn * dy)},${String(y0 + y - mean + turn * dx)}`;
  };
  const outline = (ends: Pair | null) =>
    [corner(0, h, ends), corner(w, h, ends), corner(w, 0, ends), corner(0, 0, ends)].join(" ");
  return (
    <figure className="turning">
      <figcaption>
        <b>{name}</b>
        {strings.inWord}
        <i className="theirs">{moved.case}</i>
        <br />
        <span className="quiet">
          {ends.length === 0 ? strings.greatestAndMeanOnlyThe : strings.plan(what, times ? strings.times(times) : "")}
        </span>
      </figcaption>
      <svg width={SIZE} height={HEIGHT} role="img" aria-label={strings.planOfMovedAlong(name, along)}>
        <polygon points={outline(null)} fill="none" stroke="var(--quiet)" strokeDasharray="4 4" />
        {ordered && <polygon points={outline(ordered)} fill="none" stroke="var(--ours)" strokeWidth={2.2} />}
        {ends.length > 0 && (
          <polygon
            points={outline([one, two])}
            fill="none"
            stroke="var(--theirs)"
            strokeWidth={1.8}
            strokeDasharray={ordered ? "5 3" : undefined}
          />
        )}
        {ends.length > 0 &&
          ([1, 2] as const).map((end) => {
            const value = end === 1 ? one : two;
            return (
              <g key={end} transform={`translate(${String(end === 1 ? 16 : 168)}, ${String(HEIGHT - 34)})`}>
                <text className="turning-small">
                  {strings.end(end)}
                  {along === "X" ? (end === 1 ? "(lower)" : "(upper)") : end === 1 ? "(left)" : "(right)"}
                </text>
                <text y={20} className="theirs turning-value" fill="var(--theirs)">
                  {value === null ? "–" : strings.mm(figures(1000 * value, 3))}
                </text>
                {ordered && (
                  <text y={20} x={66} className="ours turning-value" fill="var(--ours)">
                    {strings.mm(figures(1000 * (ordered[end - 1] ?? 0), 3))}
                  </text>
                )}
              </g>
            );
          })}
      </svg>
    </figure>
  );
}
