import { Select } from "@mantine/core";
import type { Brief, Edition } from "../shared/api/client";
import { ValueInput } from "../shared/ValueInput";
import { CurvePaste } from "./CurvePaste";
import { give, given, type Change } from "./places";
import { strings } from "./strings";
import css from "./CustomSpectrum.module.css";

const OWN: [string, string, string][] = [
  ["period_coefficient", strings.coefficientOfThePeriod, strings.requiredWithoutAnalysis],
  ["period_exponent", strings.itsExponent, "0.75"],
  ["period_limit", strings.limitOnThePeriodT, strings.noLimit],
  ["mass_factor", strings.shareOfTheMass, "1"],
  ["minimum", strings.minimumVW, "0"],
  ["exponent", strings.exponentOverTheHeight, "1"],
  ["eccentricity", strings.accidentalEccentricity, "0.05"],
  ["mass_target", strings.massTarget, "0.9"],
  ["scaling_share", strings.dynamicOverStaticShear, "1"],
  ["torsion_limit", strings.torsionLimit, "1.2"],
  ["torsion_extreme", strings.extremeTorsion, "1.4"],
  ["drift_factor", strings.driftAmplifier, "1"],
  ["drift_limit", strings.driftLimit, strings.noLimit],
  ["theta_limit", strings.stabilityLimit, "0.1"],
];
const site = (name: string) => ({ name, part: "site" }) as const;

/** The reviewer's own spectrum, pasted as two columns, with their own factors and limits. */
export function CustomSpectrum({ edition, brief, change }: { edition: Edition; brief: Brief; change: Change }) {
  const value = (name: string) => given(brief, edition.id, site(name), null);
  const T = (value("T") as number[] | null | undefined) ?? [];
  const kind = Array.isArray(value("S_d")) ? "S_d" : "S_a";
  const ordinates = (value(kind) as number[] | null | undefined) ?? [];
  const coefficients = (value("own") as Record<string, number | null> | null | undefined) ?? {};
  const take = (points: [number, number][]) => {
    change((b) => {
      give(
        b,
        edition.id,
        site("T"),
        null,
        points.map((p) => p[0]),
      );
      give(
        b,
        edition.id,
        site(kind),
        null,
        points.map((p) => p[1]),
      );
    });
  };
  return (
    <div className="curve-paste">
      <div className={`fields ${css["grid"] ?? ""}`}>
        <CurvePaste
          label={strings.pointsPeriodSAnd(kind === "S_a" ? strings.accelerationG : strings.displacementM)}
          points={T.map((t, i) => [t, ordinates[i] ?? 0])}
          placeholder={"0\t0.40\n0.2\t1.00\n…"}
          onTake={take}
        />
        <Select
          label={strings.ordinatesAre}
          allowDeselect={false}
          value={kind}
          data={[
            { value: "S_a", label: strings.accelerationsG },
            { value: "S_d", label: strings.displacementsM },
          ]}
          onChange={(v) => {
            change((b) => {
              give(b, edition.id, site(v ?? "S_a"), null, ordinates.length ? ordinates : null);
              give(b, edition.id, site(v === "S_d" ? "S_a" : "S_d"), null, null);
            });
          }}
        />
        <Select
          label={strings.interpolatedBetweenPoints}
          allowDeselect={false}
          value={(value("read") as string | undefined) ?? "linear"}
          data={[
            { value: "linear", label: strings.linearly },
            { value: "log", label: strings.logarithmically },
          ]}
          onChange={(v) => {
            change((b) => {
              give(b, edition.id, site("read"), null, v);
            });
          }}
        />
      </div>
      <div className={`fields ${css["below"] ?? ""}`}>
        {OWN.map(([name, label, standing]) => (
          <ValueInput
            key={name}
            label={label}
            placeholder={standing}
            value={coefficients[name]}
            onCommit={(v) => {
              change((b) => {
                give(b, edition.id, site("own"), null, { ...coefficients, [name]: v });
              });
            }}
          />
        ))}
      </div>
    </div>
  );
}
