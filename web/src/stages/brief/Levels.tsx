import { Button, Select, TagsInput, TextInput } from "@mantine/core";
import { CurvePaste } from "../../editions/CurvePaste";
import type { Brief, Schemas } from "../../shared/api/client";
import { ValueInput } from "../../shared/ValueInput";
import { strings } from "./strings";

type Level = Schemas["Level"];

interface Props {
  brief: Brief;
  change: (edit: (brief: Brief) => void) => void;
  /** names of the load cases of the submission */
  cases: string[];
}

const KINDS: { value: Level["kind"]; label: string }[] = [
  { value: "design", label: strings.design },
  { value: "damage_limitation", label: strings.damageLimitation },
  { value: "serviceability", label: strings.serviceabilityLabel },
];
/** One of these makes the spectrum of a level. */
const SPECTRA = [
  { value: "factor", label: strings.factorOnTheDesignSpectrum },
  { value: "return_period", label: strings.returnPeriod },
  { value: "spectrum", label: strings.separateSpectrum },
] as const;
type Spectrum = (typeof SPECTRA)[number]["value"];
const EMPTY: Record<Spectrum, Partial<Level>> = {
  factor: { factor: 1, return_period: null, spectrum: null },
  return_period: { factor: null, return_period: 475, spectrum: null },
  spectrum: { factor: null, return_period: null, spectrum: null },
};
const spectrumOf = (level: Level): Spectrum | null =>
  SPECTRA.find((s) => level[s.value] !== null && level[s.value] !== undefined)?.value ?? null;

/** Action levels besides the design action: spectrum, drift limit, and the load cases with results of each. */
export function Levels({ brief, change, cases }: Props) {
  const levels = brief.levels ?? [];
  const set = (next: Level[]) => {
    change((b) => {
      b.levels = next;
    });
  };
  const edit = (i: number, to: Partial<Level>) => {
    set(levels.map((level, j) => (j === i ? { ...level, ...to } : level)));
  };
  const free = (name: string): string => (levels.some((l) => l.name === name) ? free(`${name}'`) : name);
  return (
    <details className="system-parts" open={levels.length > 0 || undefined}>
      <summary>
        {strings.actionLevels}
        {levels.length === 0 ? strings.thoseOfTheEdition : levels.map((l) => l.name).join(", ")}
      </summary>
      {levels.map((level, i) => (
        <section key={i} aria-label={strings.actionLevel(level.name)} className="action-level">
          <div className="fields">
            <TextInput
              label={strings.name}
              defaultValue={level.name}
              key={level.name}
              onBlur={(e) => {
                const name = e.currentTarget.value.trim();
                if (name && name !== level.name) edit(i, { name });
              }}
            />
            <Select
              label={strings.kind}
              allowDeselect={false}
              value={level.kind}
              data={KINDS}
              onChange={(v) => {
                const kind = v as Level["kind"];
                const none = { factor: null, return_period: null, spectrum: null };
                edit(i, kind === "design" ? { kind, ...none } : { kind });
              }}
            />
            {level.kind !== "design" && (
              <Select
                label={strings.spectrum}
                clearable
                placeholder={strings.asTheCodeRequires}
                value={spectrumOf(level)}
                data={[...SPECTRA.slice(0, 2)]}
                onChange={(v) => {
                  edit(i, v ? EMPTY[v] : EMPTY.spectrum);
                }}
              />
            )}
            {spectrumOf(level) === "factor" && (
              <ValueInput
                label={strings.factor}
                value={level.factor}
                onCommit={(v) => {
                  edit(i, { factor: v });
                }}
              />
            )}
            {spectrumOf(level) === "return_period" && (
              <ValueInput
                label={strings.returnPeriodLabel}
                unit="years"
                value={level.return_period}
                onCommit={(v) => {
                  edit(i, { return_period: v });
                }}
              />
            )}
            <ValueInput
              label={strings.driftLimitOfTheHeight}
              unit="%"
              placeholder={level.kind === "serviceability" ? strings.required : strings.asTheCodeRequires}
              value={level.drift_limit ? Number((100 * level.drift_limit).toPrecision(10)) : null}
              onCommit={(v) => {
                edit(i, { drift_limit: v === null ? null : v / 100 });
              }}
            />
          </div>
          <div className="fields action-level-more">
            <TagsInput
              label={strings.loadCasesWithItsResults}
              placeholder={level.cases?.length ? "" : strings.noneTheDesignDriftsTimes}
              value={level.cases ?? []}
              data={cases}
              onChange={(names) => {
                edit(i, { cases: names });
              }}
            />
            {level.kind !== "design" && (spectrumOf(level) === null || spectrumOf(level) === "spectrum") && (
              <CurvePaste
                label={strings.orASeparateElasticSpectrum}
                placeholder={"0\t0.10\n0.2\t0.25\n…"}
                points={(level.spectrum?.T ?? []).map((t, k) => [t, level.spectrum?.S_a[k] ?? 0])}
                onTake={(points) => {
                  edit(i, { spectrum: { T: points.map((p) => p[0]), S_a: points.map((p) => p[1]) } });
                }}
                onLeave={() => {
                  edit(i, { spectrum: null });
                }}
              />
            )}
          </div>
          <Button
            variant="subtle"
            size="compact-sm"
            onClick={() => {
              set(levels.filter((_, j) => j !== i));
            }}
          >
            {strings.removeNamed(level.name)}
          </Button>
        </section>
      ))}
      <Button
        variant="default"
        size="compact-sm"
        onClick={() => {
          set([...levels, { name: free(strings.serviceability), kind: "serviceability" }]);
        }}
      >
        {strings.addAnActionLevel}
      </Button>
    </details>
  );
}
