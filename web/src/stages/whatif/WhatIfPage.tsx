import { Button, Loader } from "@mantine/core";
import { useQueries, useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { useReviewContext } from "../../review/ReviewContext";
import type { Recheck } from "../../shared/api/client";
import { sensitivityQuery, whatIfQuery, type Assumptions } from "../../shared/api/queries";
import { figures, percent } from "../../shared/numbers";
import { Problems } from "../../shared/Problems";
import { SymbolText } from "../../shared/Symbol";
import { changesOf, readAssumptions, together, writeAssumptions } from "../../review/whatif/assumptions";
import { shownValue } from "../../review/whatif/inputs";
import { strings } from "../../review/whatif/strings";
import { effectsOf, lengthOf } from "./effects";
import "../../review/whatif/whatif.css";
import "./effects.css";

/** What the verdicts rest on, and several assumptions beside each other. */
export default function WhatIfPage() {
  const { review, submission, recheckedAt, stored } = useReviewContext();
  const sensitivity = useQuery({
    ...sensitivityQuery(review.id, submission, recheckedAt),
    enabled: stored !== undefined,
  });
  return (
    <main className="page what-if-page">
      <h2 className="stage-title">{strings.whatItRestsOn}</h2>
      <p className="quiet">{strings.eachInput}</p>
      <Problems error={sensitivity.error} title={strings.notComputed} />
      {sensitivity.isLoading && <Loader size="sm" />}
      {sensitivity.data && <Effects variants={sensitivity.data} />}
      <SideBySide />
    </main>
  );
}

/** A row for each input: its bars either side, the value that moves most, and the verdicts that flip. */
function Effects({ variants }: { variants: Parameters<typeof effectsOf>[0] }) {
  const { whatIf, assume } = useReviewContext();
  const effects = effectsOf(variants);
  const most = Math.max(0, ...effects.map((e) => e.greatest));
  if (effects.length === 0) return <p>{strings.noInputs}</p>;
  return (
    <table className="plain effects">
      <thead>
        <tr>
          <th scope="col">{strings.input}</th>
          <th scope="col">{strings.value}</th>
          <th scope="col" className="effects-bars">
            {strings.shift}
          </th>
          <th scope="col" />
          <th scope="col" className="n">
            {strings.flips}
          </th>
          <th scope="col" />
        </tr>
      </thead>
      <tbody>
        {effects.flatMap((effect) =>
          effect.sides.map(({ variant, change, symbol }, i) => {
            const length = lengthOf(change, most);
            return (
              <tr key={`${effect.input} ${variant.after}`} className={i === 0 ? "first" : undefined}>
                <th scope="row">{i === 0 && effect.input}</th>
                <td>
                  {variant.before} → {variant.after}
                </td>
                <td className="effects-bars">
                  <span className="effects-axis" />
                  <span
                    className={length < 0 ? "effects-bar less" : "effects-bar"}
                    style={{ width: `${String(50 * Math.abs(length))}%` }}
                  />
                </td>
                <td className="n">
                  {symbol ? (
                    <>
                      <SymbolText text={symbol} /> {percent(change)}
                    </>
                  ) : (
                    strings.none
                  )}
                </td>
                <td className="n" title={variant.flips.map((f) => f.label).join(", ")}>
                  {variant.flips.length || strings.none}
                </td>
                <td>
                  {Object.keys(variant.patch).length > 0 && (
                    <button
                      type="button"
                      className="linklike"
                      onClick={() => {
                        assume(together(whatIf, variant.patch));
                      }}
                    >
                      {strings.tryIt}
                    </button>
                  )}
                </td>
              </tr>
            );
          }),
        )}
      </tbody>
    </table>
  );
}

const BESIDE = "beside";
const MOST_COLUMNS = 5;
const VALUES = ["T.X", "T.Y", "V.X", "V.Y"];
const VERDICTS = [
  ["differs", strings.differ],
  ["breaches", strings.breach],
  ["agrees", strings.agree],
] as const;

/** What the recheck is as the brief has it, now, and under each assumption that was put beside. */
function SideBySide() {
  const { review, submission, recheckedAt, stored, whatIf } = useReviewContext();
  const [params, setParams] = useSearchParams();
  const kept = params.getAll(BESIDE).flatMap((written) => readAssumptions(written) ?? []);
  const columns = whatIf ? [...kept, whatIf] : kept;
  const answers = useQueries({
    queries: columns.map((assumptions) => ({
      ...whatIfQuery(review.id, submission, recheckedAt, assumptions),
      enabled: stored !== undefined,
    })),
  });
  if (!stored || columns.length === 0) return null;
  const sheets: (Recheck | undefined)[] = [stored, ...answers.map((a) => a.data?.sheet)];
  const put = (all: Assumptions[]) => {
    setParams(
      (p) => {
        p.delete(BESIDE);
        for (const each of all) {
          const written = writeAssumptions(each);
          if (written) p.append(BESIDE, written);
        }
        return p;
      },
      { replace: true },
    );
  };
  return (
    <section className="what-if-columns">
      <h2 className="stage-title">{strings.columns}</h2>
      <p className="quiet">{strings.columnsWords}</p>
      <table className="plain">
        <thead>
          <tr>
            <th scope="col">{strings.quantity}</th>
            <th scope="col" className="n">
              {strings.asItIs}
            </th>
            {columns.map((assumptions, i) => (
              <th key={i} scope="col" className="n">
                {headOf(assumptions)}
                {i < kept.length && (
                  <button
                    type="button"
                    className="linklike"
                    aria-label={strings.remove(headOf(assumptions))}
                    onClick={() => {
                      put(kept.filter((_, j) => j !== i));
                    }}
                  >
                    ×
                  </button>
                )}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {VALUES.filter((id) => sheets.some((s) => valueAt(s, id) !== undefined)).map((id) => (
            <tr key={id}>
              <th scope="row">
                <SymbolText text={id.replace(".", " ")} />
              </th>
              {sheets.map((sheet, i) => {
                const value = valueAt(sheet, id);
                const first = valueAt(sheets[0], id);
                return (
                  <td key={i} className="n ours">
                    {value === undefined ? "–" : figures(value)}
                    {i > 0 && value !== undefined && first !== undefined && value !== first && (
                      <span className="off"> {percent(value / first - 1)}</span>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
          {VERDICTS.map(([verdict, words]) => (
            <tr key={verdict}>
              <th scope="row">{words}</th>
              {sheets.map((sheet, i) => (
                <td key={i} className="n">
                  {sheet?.counts[verdict] ?? "–"}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {whatIf && kept.length < MOST_COLUMNS && (
        <Button
          size="compact-sm"
          variant="default"
          mt={10}
          onClick={() => {
            put([...kept, whatIf]);
          }}
        >
          {strings.besideNow}
        </Button>
      )}
    </section>
  );
}

const headOf = ({ patch, theirs, ours }: Assumptions): string =>
  [
    ...changesOf(patch).map(({ at, value }) => `${at.slice(-1)[0]?.replace("_", " ") ?? ""} ${shownValue(value)}`),
    ...theirs.map((id) => strings.theirs(id)),
    ...ours.map((id) => strings.ours(id)),
  ].join(", ");

const valueAt = (sheet: Recheck | undefined, id: string): number | undefined => {
  const value = sheet?.values.find((v) => v.id === id)?.value;
  return typeof value === "number" ? value : undefined;
};
