import type { Brief, Edition } from "../shared/api/client";
import { SymbolText } from "../shared/Symbol";
import { ValueInput } from "../shared/ValueInput";
import { CurvePaste } from "./CurvePaste";
import { give, given, type Change } from "./places";
import { strings } from "./strings";
import css from "./SiteStudy.module.css";

interface Values {
  T?: number[] | null;
  S_a?: number[] | null;
  S_DS?: number | null;
  S_D1?: number | null;
}

const STUDY = { name: "site_specific", part: "site" } as const;

/** Values of a site-specific study: they replace the general ones, and the code's floor is compared with them. */
export function SiteStudy({ edition, brief, change }: { edition: Edition; brief: Brief; change: Change }) {
  const study = (given(brief, edition.id, STUDY, null) as Values | null | undefined) ?? {};
  const set = (to: Values) => {
    const next = Object.fromEntries(Object.entries({ ...study, ...to }).filter(([, v]) => v !== null));
    change((b) => {
      give(b, edition.id, STUDY, null, Object.keys(next).length ? next : null);
    });
  };
  // editions with mapped values at short periods and at 1 s take the study's design values at both
  const values = edition.inputs.some((i) => i.name === "S_1") ? (["S_DS", "S_D1"] as const) : [];
  return (
    <>
      <h3 className="part">{strings.siteSpecificStudy}</h3>
      <p className={`quiet ${css["smallLine"] ?? ""}`}>{strings.leaveThisEmptyIfThere(edition.title)}</p>
      <div className={`fields ${css["grid"] ?? ""}`}>
        <CurvePaste
          label={strings.designSpectrumPeriodSAnd}
          placeholder={"0\t0.40\n0.2\t1.00\n…"}
          points={(study.T ?? []).map((t, i) => [t, study.S_a?.[i] ?? 0])}
          onTake={(points) => {
            set({ T: points.map((p) => p[0]), S_a: points.map((p) => p[1]) });
          }}
          onLeave={() => {
            set({ T: null, S_a: null });
          }}
        />
        {values.map((name) => (
          <ValueInput
            key={name}
            label={<SymbolText text={strings.ofTheStudy(name)} />}
            aria-label={strings.ofTheStudy(name)}
            unit="g"
            placeholder={study.T ? strings.byTheCurve : strings.notEntered}
            value={study[name]}
            onCommit={(v) => {
              set({ [name]: v });
            }}
          />
        ))}
      </div>
    </>
  );
}
