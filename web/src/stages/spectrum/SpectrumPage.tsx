import { SegmentedControl, useComputedColorScheme } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import { Bench } from "../../bench/Bench";
import { useReviewContext } from "../../review/ReviewContext";
import { curveQuery, useEditions } from "../../shared/api/queries";
import { ChecksTable } from "../../shared/ChecksTable";
import { Problems } from "../../shared/Problems";
import { Chart } from "./Chart";
import { drawnPeriods, submittedPoints, type View } from "./curves";
import { strings } from "./strings";
import css from "./SpectrumPage.module.css";

/** Is their curve the code's curve? */
export default function SpectrumPage() {
  const { review, recheck, selected, select, assumedBrief, whatIf } = useReviewContext();
  const scheme = useComputedColorScheme("light");
  const [view, setView] = useState<View>("acceleration");
  const [log, setLog] = useState("linear");
  const [reducedBy, setReducedBy] = useState<"" | "X" | "Y">("");
  const step = (id: string) => recheck?.values.find((s) => s.id === id)?.value;
  const numbers = step("T_points");
  const tablePeriods = useMemo(() => (Array.isArray(numbers) ? numbers.filter((v) => v !== null) : []), [numbers]);
  const brief = assumedBrief;
  const editions = useEditions();
  const edition = editions.data?.find((e) => e.id === brief.edition);
  const corners = (edition?.corner_periods ?? []).map(step).filter((v) => typeof v === "number");
  const longest = Math.min(Math.max(4, tablePeriods.at(-1) ?? 0), edition?.longest_period ?? Infinity);
  const curveRequest = {
    kind: "spectrum" as const,
    edition: brief.edition,
    site: brief.site,
    occupancy: brief.occupancy,
    T: drawnPeriods(longest, corners),
  };
  const request = reducedBy ? { ...curveRequest, direction: reducedBy, system: brief.system } : curveRequest;
  const curve = useQuery({ ...curveQuery(request), enabled: editions.data !== undefined });
  const { edition: asItIs, site, occupancy } = review.brief;
  const before = useQuery({
    ...curveQuery({ ...curveRequest, edition: asItIs, site, occupancy }),
    enabled: whatIf !== undefined && editions.data !== undefined,
  });
  const submitted = useMemo(() => submittedPoints(recheck?.checks ?? [], tablePeriods), [recheck, tablePeriods]);
  const periods = useMemo(
    () =>
      (recheck?.checks ?? [])
        .filter((c) => c.quantity === "T" && c.direction)
        .flatMap((c) => [
          ...(c.independent && typeof c.independent.value === "number"
            ? [{ name: `T ${c.direction ?? ""}`, T: c.independent.value, theirs: false }]
            : []),
          ...(c.verdict !== "agrees" && typeof c.theirs?.value === "number"
            ? [{ name: strings.theirsIn(c.direction ?? ""), T: c.theirs.value, theirs: true }]
            : []),
        ]),
    [recheck],
  );
  if (!recheck) return null;
  const checks = recheck.checks.filter((c) => c.stage === "spectrum");
  const corner = checks.filter((c) => c.point === null);
  const points = checks.filter((c) => c.point !== null);
  return (
    <div className="split wide">
      <main className="stage">
        <div className="stage-head">
          <h2 className="stage-title">{strings.spectrum}</h2>
          <span className="end">
            <SegmentedControl
              aria-label={strings.view}
              value={view}
              onChange={(v) => {
                setView(v);
              }}
              data={[
                { value: "acceleration", label: strings.acceleration },
                { value: "displacement", label: strings.displacement },
                { value: "adrs", label: strings.adrs },
              ]}
            />
            <SegmentedControl aria-label={strings.scale} value={log} onChange={setLog} data={["linear", "log"]} />
            <SegmentedControl
              aria-label={strings.reducedCurve}
              value={reducedBy}
              onChange={(v) => {
                setReducedBy(v);
              }}
              data={[
                { value: "", label: strings.design },
                { value: "X", label: strings.reducedX },
                { value: "Y", label: strings.reducedY },
              ]}
            />
          </span>
        </div>
        {curve.error ? (
          <>
            <p className="quiet empty">
              {strings.ourCurveNeedsTheSite}
              <Link to="../ground">{strings.ground}</Link>
              {strings.theReductionFactorsUnder}
              <Link to="../brief">{strings.brief}</Link>.
            </p>
            <Problems error={curve.error} title={strings.missingInputs} />
          </>
        ) : (
          curve.data && (
            <Chart
              T={curve.data.T}
              design={curve.data.elastic}
              before={whatIf && before.data ? before.data.elastic : null}
              reduced={curve.data.reduced}
              submitted={submitted}
              periods={periods}
              view={view}
              log={log === "log"}
              scheme={scheme}
              onSelect={select}
            />
          )
        )}
        <p className={`log-legend ${css["row"] ?? ""}`}>
          <span>
            <svg width={12} height={12} aria-hidden>
              <circle cx={6} cy={6} r={4} fill="var(--ground)" stroke="var(--theirs)" strokeWidth={1.5} />
            </svg>{" "}
            <i className="theirs">{strings.theirs}</i>
          </span>
          <span>
            <svg width={22} height={12} aria-hidden>
              <line x1={0} x2={22} y1={6} y2={6} stroke="var(--ours)" strokeWidth={2.4} />
            </svg>{" "}
            <b className="ours">{strings.oursDesignSpectrum}</b>
          </span>
          {reducedBy && (
            <span>
              <svg width={22} height={12} aria-hidden>
                <line x1={0} x2={22} y1={6} y2={6} stroke="var(--ours)" strokeWidth={1.4} strokeDasharray="4 3" />
              </svg>
              {strings.reducedForStrength(reducedBy)}
            </span>
          )}
          {whatIf && (
            <span>
              <svg width={22} height={12} aria-hidden>
                <line x1={0} x2={22} y1={6} y2={6} stroke="var(--ours)" strokeWidth={1.2} strokeDasharray="1 3" />
              </svg>{" "}
              {strings.before}
            </span>
          )}
          <span className="quiet">{strings.fullLozengeOriginHollowInherited}</span>
        </p>
        {(corner.length > 0 || points.length === 0) && (
          <ChecksTable caption={strings.cornerPeriods} checks={corner} selected={selected?.id} onSelect={select} />
        )}
        {points.length > 0 && (
          <ChecksTable
            caption={strings.ordinatesOfTheSubmittedTable}
            checks={points.map((c) => ({ ...c, label: strings.sAAtS(String(tablePeriods[c.point ?? 0])) }))}
            selected={selected?.id}
            onSelect={select}
          />
        )}
      </main>
      <Bench stage="spectrum" />
    </div>
  );
}
