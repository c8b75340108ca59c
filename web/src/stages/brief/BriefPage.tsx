import { Button, MultiSelect, Select } from "@mantine/core";
import { Link } from "react-router";
import { BuildingTests } from "../../editions/BuildingTests";
import { EditionFields } from "../../editions/EditionFields";
import { CustomSpectrum } from "../../editions/CustomSpectrum";
import { compareWith } from "../../editions/places";
import { useReviewContext } from "../../review/ReviewContext";
import type { DirectionSystem, Edition, System } from "../../shared/api/client";
import { useAcross, useEditions } from "../../shared/api/queries";
import { Facts } from "../../shared/Facts";
import { counted } from "../../shared/numbers";
import { SymbolText } from "../../shared/Symbol";
import { Problems } from "../../shared/Problems";
import { useBrief } from "../../review/useBrief";
import { ValueInput } from "../../shared/ValueInput";
import { Conditions } from "./Conditions";
import { Floors } from "./Floors";
import { Irregularities } from "./Irregularities";
import { Levels } from "./Levels";
import { LoadsEditor } from "./LoadsEditor";
import { StoriesEditor } from "./StoriesEditor";
import { ReviewSettings } from "./ReviewSettings";
import { Walls } from "./Walls";
import "../../editions/editions.css";
import { strings } from "./strings";
import css from "./BriefPage.module.css";

/** What building, which codes, which system each way: the reviewer's own side. */
export default function BriefPage() {
  const { review, recheck } = useReviewContext();
  const doubtful = recheck?.facts.filter((f) => f.contradicted_by).length ?? 0;
  const editions = useEditions();
  const across = useAcross(review.id);
  const { brief, change, govern, error, undo, canUndo, busy } = useBrief();
  const known = editions.data ?? [];
  const governing = known.find((e: Edition) => e.id === brief.edition);
  const compared = (brief.comparison_editions ?? []).flatMap((id) => known.filter((e) => e.id === id));
  const needsOf = (id: string) => across.data?.editions.find((e) => e.id === id)?.needs ?? [];
  const inputs = new Set([governing, ...compared].flatMap((e) => e?.inputs.map((i) => i.name) ?? []));
  const direction = (d: "X" | "Y", edit: (s: DirectionSystem) => void) => {
    change((b) => {
      const s = { ...b.system?.[d] };
      edit(s);
      b.system = { ...b.system, [d]: s };
    });
  };
  const building = (edit: Partial<System>) => {
    change((b) => {
      b.system = { ...b.system, ...edit };
    });
  };
  const wallsOf = (["X", "Y"] as const).filter((d) =>
    [governing, ...compared].some((e) => {
      const system = e?.id === brief.edition ? brief.system?.[d] : brief.comparisons?.[e?.id ?? ""]?.system?.[d];
      return [system?.T_a_formula, system?.period_type].some((chosen) => chosen && e?.walls_with.includes(chosen));
    }),
  );
  const tested = (value: boolean | null | undefined) => (value === true ? "none" : value === false ? "some" : "open");
  const TESTED = [
    { value: "none", label: strings.none },
    { value: "some", label: strings.some },
    { value: "open", label: strings.notTested },
  ];
  return (
    <main className={`page ${css["width"] ?? ""}`}>
      <div className="stage-head">
        <h2 className="stage-title">{strings.brief}</h2>
        <span className="quiet">{strings.theReviewersOwnDataNothing}</span>
        <span className="end">
          <span className="quiet" aria-live="polite">
            {busy ? strings.saving : strings.saved}
          </span>
          <Button variant="default" disabled={!canUndo} onClick={undo}>
            {strings.undo}
          </Button>
        </span>
      </div>
      <Problems error={error} title={strings.notSavedTheBriefIs} />
      <h3 className="part">{strings.codes}</h3>
      <div className={`fields ${css["grid"] ?? ""}`}>
        <Select
          label={strings.governingEdition}
          allowDeselect={false}
          value={brief.edition}
          data={known.map((e: Edition) => ({ value: e.id, label: e.title }))}
          onChange={(v) => {
            if (v && v !== brief.edition) govern(v);
          }}
        />
        <MultiSelect
          label={strings.comparedWith}
          placeholder={compared.length ? undefined : strings.anyNumberOfEditions}
          value={brief.comparison_editions ?? []}
          searchable
          hidePickedOptions
          data={known.filter((e) => e.id !== brief.edition).map((e) => ({ value: e.id, label: e.title }))}
          onChange={(ids) => {
            change((b) => {
              compareWith(b, ids);
            });
          }}
        />
        <ValueInput
          label={strings.tolerance}
          unit="%"
          value={(brief.tolerance ?? 0.01) * 100}
          onCommit={(v) => {
            change((b) => {
              b.tolerance = v === null ? null : v / 100;
            });
          }}
        />
      </div>
      <h3 className="part">{strings.buildingDataTheSameFor}</h3>
      <table className="plain by-direction">
        <thead>
          <tr>
            <th />
            <th>{strings.tFromAnalysis}</th>
            {inputs.has("d") && <th>{strings.baseDimensionD}</th>}
            {inputs.has("d_gravity") && <th>{strings.topDisplacementUnderGravity}</th>}
            {inputs.has("regular") && <th>{strings.irregularities}</th>}
          </tr>
        </thead>
        <tbody>
          {(["X", "Y"] as const).map((d) => (
            <tr key={d}>
              <td>
                <b>{d}</b>
              </td>
              <td>
                <ValueInput
                  aria-label={strings.tFromAnalysisIn(d)}
                  w={110}
                  unit="s"
                  value={brief.period?.[d]?.analysis}
                  onCommit={(v) => {
                    change((b) => {
                      b.period = { ...b.period, [d]: { analysis: v } };
                    });
                  }}
                />
              </td>
              {inputs.has("d") && (
                <td>
                  <ValueInput
                    aria-label={strings.baseDimension(d)}
                    w={130}
                    unit="m"
                    placeholder={brief.stories?.[0]?.plan ? strings.fromThePlan : strings.notEntered}
                    value={brief.system?.[d]?.d}
                    onCommit={(v) => {
                      direction(d, (s) => {
                        s.d = v;
                      });
                    }}
                  />
                </td>
              )}
              {inputs.has("d_gravity") && (
                <td>
                  <ValueInput
                    aria-label={strings.topDisplacementIn(d)}
                    w={130}
                    unit="m"
                    placeholder={strings.notEntered}
                    value={brief.system?.[d]?.d_gravity}
                    onCommit={(v) => {
                      direction(d, (s) => {
                        s.d_gravity = v;
                      });
                    }}
                  />
                </td>
              )}
              {inputs.has("regular") && (
                <td>
                  <Select
                    aria-label={strings.irregularitiesIn(d)}
                    w={130}
                    allowDeselect={false}
                    value={tested(brief.system?.[d]?.regular)}
                    data={TESTED}
                    onChange={(v) => {
                      direction(d, (s) => {
                        s.regular = v === "open" ? null : v === "none";
                      });
                    }}
                  />
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      {inputs.has("regular_in_plan") && (
        <div className={`fields ${css["width2"] ?? ""}`}>
          <Select
            label={strings.irregularInPlan}
            allowDeselect={false}
            value={tested(brief.system?.regular_in_plan)}
            data={TESTED}
            onChange={(v) => {
              building({ regular_in_plan: v === "open" ? null : v === "none" });
            }}
          />
          <Select
            label={strings.irregularInElevation}
            allowDeselect={false}
            value={tested(brief.system?.regular_in_elevation)}
            data={TESTED}
            onChange={(v) => {
              building({ regular_in_elevation: v === "open" ? null : v === "none" });
            }}
          />
        </div>
      )}
      {inputs.has("torsionally_flexible") && (
        <div className={`fields ${css["width3"] ?? ""}`}>
          <Select
            label={strings.torsionallyFlexible}
            clearable
            placeholder={strings.fromRAndLS}
            value={
              brief.system?.torsionally_flexible === true
                ? "yes"
                : brief.system?.torsionally_flexible === false
                  ? "no"
                  : null
            }
            data={["yes", "no"]}
            onChange={(v) => {
              building({ torsionally_flexible: v === null ? null : v === "yes" });
            }}
          />
        </div>
      )}
      {inputs.has("irregularities") && <Irregularities brief={brief} change={change} across={across.data} />}
      <Conditions brief={brief} change={change} inputs={inputs} />
      <Levels brief={brief} change={change} cases={review.submissions.at(-1)?.cases.map((c) => c.name) ?? []} />
      {wallsOf.length > 0 && (
        <Walls
          brief={brief}
          change={change}
          directions={wallsOf}
          heights={governing?.parts.includes("wall_heights") ?? false}
          area={[governing, ...compared].some((e) => e?.inputs.some((i) => i.name === "A_B"))}
        />
      )}
      {governing && (
        <section className="edition-part" aria-label={governing.title}>
          <header>
            <h4>{governing.title}</h4>
            <span className="quiet">{strings.governs}</span>
          </header>
          <EditionFields
            key={governing.id}
            edition={governing}
            brief={brief}
            change={change}
            needs={needsOf(governing.id)}
            steps={across.data?.steps[governing.id]}
            wanted={(i) => i.part !== "site"}
          />
          <BuildingTests described={across.data?.editions.find((e) => e.id === governing.id)} />
          <p className={`quiet ${css["smallLine"] ?? ""}`}>
            {strings.siteValuesSupplementsAndPermissions}
            <Link to="../ground">{strings.ground}</Link>
            {strings.inputsLeftEmptyAreUsed}
          </p>
        </section>
      )}
      {compared.map((edition) => {
        const needs = needsOf(edition.id);
        return (
          <section key={edition.id} className="edition-part" aria-label={edition.title}>
            <header>
              <h4>{edition.title}</h4>
              {across.data &&
                (needs.length === 0 ? (
                  <span className="quiet">
                    {strings.complete}
                    <Link to="../across">{strings.sideBySide}</Link>
                  </span>
                ) : (
                  <span className="off">
                    {strings.needs}
                    <SymbolText
                      text={[
                        ...new Set(needs.map((n) => edition.inputs.find((i) => i.name === n.name)?.symbol ?? n.name)),
                      ].join(", ")}
                    />
                  </span>
                ))}
            </header>
            <EditionFields
              edition={edition}
              brief={brief}
              change={change}
              needs={needs}
              steps={across.data?.steps[edition.id]}
              wanted={() => true}
              onDemand
            />
            <BuildingTests described={across.data?.editions.find((e) => e.id === edition.id)} />
            {edition.inputs.some((i) => i.name === "curve") && (
              <CustomSpectrum edition={edition} brief={brief} change={change} />
            )}
          </section>
        );
      })}
      <div className="edition-part">
        <StoriesEditor
          stories={brief.stories ?? []}
          fromLoads={across.data?.weights[brief.edition]?.w}
          onChange={(stories) => {
            change((b) => {
              b.stories = stories;
            });
          }}
        />
        <Floors
          reviewId={review.id}
          briefNumber={review.brief_number}
          stories={brief.stories ?? []}
          onChange={(stories) => {
            change((b) => {
              b.stories = stories;
            });
          }}
          stiffness={inputs.has("torsionally_flexible")}
          offsets={[governing, ...compared].some((e) => e?.parts.includes("offset"))}
        />
        <LoadsEditor
          stories={brief.stories ?? []}
          weights={across.data?.weights}
          editions={[governing, ...compared].flatMap((e) => (e ? [{ id: e.id, title: e.short }] : []))}
          onChange={(stories) => {
            change((b) => {
              b.stories = stories;
            });
          }}
        />
      </div>
      {recheck && recheck.facts.length > 0 && (
        <details className="system-parts">
          <summary>
            {strings.factsTheReviewRestsOn(counted(recheck.facts.length, "fact"))}
            {doubtful > 0 && <span className="off">{strings.contradicted(doubtful)}</span>}
          </summary>
          <Facts facts={recheck.facts} />
        </details>
      )}
      <ReviewSettings review={review} />
    </main>
  );
}
