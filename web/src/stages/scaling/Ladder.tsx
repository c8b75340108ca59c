import { useElementSize } from "@mantine/hooks";
import type { Check, Recheck } from "../../shared/api/client";
import { figures, trimmed } from "../../shared/numbers";
import { SymbolSpans, SymbolText } from "../../shared/Symbol";
import { rungs } from "./ladder";
import { strings } from "./strings";

type Shears = NonNullable<NonNullable<Recheck["stages"]["scaling"]>["X"]>;

const NAMES = 192;
const ROW = 40;
const TOP = 26;

interface Props {
  direction: "X" | "Y";
  shears: Shears;
  checks: Check[];
  onSelect: (id: string) => void;
}

/** The base shears of a direction on one scale, the share that is required as an edge. */
export function Ladder({ direction, shears, checks, onSelect }: Props) {
  const { ref, width } = useElementSize();
  const rows = rungs(shears, checks);
  const most = Math.max(...rows.map((r) => r.value), shears.floor ?? 0, 1e-9);
  const right = width - 78;
  const at = (v: number) => NAMES + (v / most) * Math.max(right - NAMES, 10);
  const height = TOP + rows.length * ROW + 6;
  const edge = shears.floor === null ? null : at(shears.floor);
  return (
    <section aria-label={strings.baseShearsIn(direction)}>
      <h3 className="part">
        {direction} <span className="quiet">{strings.baseShearKn}</span>
      </h3>
      <div ref={ref}>
        {width > 0 && (
          <svg
            width={width}
            height={height}
            role="group"
            aria-label={rows.map((r) => strings.kn(r.name, figures(r.value))).join(", ")}
          >
            {edge !== null && (
              <g stroke="var(--limit)">
                <line x1={edge} x2={edge} y1={TOP - 4} y2={height} strokeWidth={1.6} />
                {Array.from({ length: Math.floor((height - TOP) / 14) }, (_, i) => TOP + 10 + 14 * i).map((y) => (
                  <line key={y} x1={edge} x2={edge - 7} y1={y} y2={y - 7} strokeWidth={0.9} />
                ))}
                <text
                  x={Math.min(edge, width - 4)}
                  y={14}
                  textAnchor="end"
                  stroke="none"
                  fill="var(--limit)"
                  className="ladder-small"
                >
                  {shears.share === null ? "" : strings.ofStaticOurs(trimmed(100 * shears.share))}
                </text>
              </g>
            )}
            {rows.map((r, i) => {
              const y = TOP + i * ROW + 12;
              const x = at(r.value);
              return (
                <g
                  key={r.name}
                  className={r.check ? "ladder-rung can" : "ladder-rung"}
                  onClick={() => {
                    if (r.check) onSelect(r.check);
                  }}
                >
                  <rect x={0} width={width} y={y - 14} height={ROW - 2} fill="transparent" />
                  <text x={NAMES - 12} y={y + 4} textAnchor="end" className="ladder-name">
                    {r.name}
                  </text>
                  {r.side === "ours" ? (
                    <line x1={NAMES} x2={x} y1={y} y2={y} stroke="var(--ours)" strokeWidth={5} />
                  ) : (
                    <>
                      <line
                        x1={NAMES}
                        x2={x - 5}
                        y1={y}
                        y2={y}
                        stroke="var(--theirs)"
                        strokeWidth={1.4}
                        strokeDasharray="4 3"
                      />
                      <circle cx={x} cy={y} r={5} fill="var(--ground)" stroke="var(--theirs)" strokeWidth={1.7} />
                    </>
                  )}
                  <text
                    x={edge !== null && x < edge && x + 70 > edge ? edge + 8 : x + 12}
                    y={y + 5}
                    className={r.side === "ours" ? "ladder-value ours" : "ladder-value theirs"}
                    fill={`var(--${r.side})`}
                  >
                    {figures(r.value)}
                  </text>
                  {r.says && (
                    <text
                      x={NAMES}
                      y={y + 19}
                      className="ladder-small"
                      fill={r.out ? "var(--off-text)" : "var(--quiet)"}
                    >
                      {r.says}
                      {r.origins.map((origin, k) => (
                        <tspan
                          key={origin.id}
                          role="link"
                          tabIndex={0}
                          className="ladder-origin"
                          onClick={(e) => {
                            e.stopPropagation();
                            onSelect(origin.id);
                          }}
                          onKeyDown={(e) => {
                            if (e.key === "Enter") onSelect(origin.id);
                          }}
                        >
                          <title>{origin.meaning}</title>
                          {k > 0 ? ", " : " "}
                          <SymbolSpans text={origin.label} />
                        </tspan>
                      ))}
                    </text>
                  )}
                </g>
              );
            })}
          </svg>
        )}
      </div>
      <div className="factors">
        <span>
          {strings.requiredFactor}
          <b className="ours">{shears.factor_required === null ? "–" : figures(shears.factor_required)}</b>
        </span>
        <span>
          {strings.used}
          <i className="theirs">{shears.factor_used === null ? strings.noneStated : figures(shears.factor_used)}</i>
        </span>
        {shears.taken_apart.length > 0 && (
          <span className="apart">
            <span className="quiet">{strings.submittedFactorOnTheSpectrum}</span>
            {shears.taken_apart.map((p, i) => (
              <span key={p.symbol} className="apart-part">
                {i > 0 && <span aria-hidden>×</span>}
                <span
                  className={`apart-box${p.symbol === "rest" && Math.abs(p.value - 1) > 0.01 ? " out" : ""}`}
                  title={p.clause}
                >
                  <b>{figures(p.value)}</b>
                  <small>
                    <SymbolText text={p.symbol === "rest" || p.symbol === "g" ? p.words : p.symbol} />
                  </small>
                </span>
              </span>
            ))}
          </span>
        )}
      </div>
    </section>
  );
}
