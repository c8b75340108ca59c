import { Button, SegmentedControl } from "@mantine/core";
import { useState } from "react";
import { Bench } from "../../bench/Bench";
import { Choices } from "../../editions/Choices";
import { EditionFields } from "../../editions/EditionFields";
import { HazardLookup } from "../../editions/HazardLookup";
import { Field } from "../../editions/Field";
import { CustomSpectrum } from "../../editions/CustomSpectrum";
import { give, given } from "../../editions/places";
import { SiteStudy } from "../../editions/SiteStudy";
import { useReviewContext } from "../../review/ReviewContext";
import { useAcross, useEditions } from "../../shared/api/queries";
import { ChecksTable } from "../../shared/ChecksTable";
import { SymbolText } from "../../shared/Symbol";
import { Problems } from "../../shared/Problems";
import { useBrief } from "../../review/useBrief";
import "../../editions/editions.css";
import { strings } from "./strings";
import css from "./GroundPage.module.css";

const MEASURED: string[] = ["v_s30", "N_SPT", "s_u", "site_period", "rock", "very_soft_thickness"];

/** Do the site values hold? */
export default function GroundPage() {
  const { review, recheck, selected, select } = useReviewContext();
  const { brief, change, error, undo, canUndo, busy } = useBrief();
  const editions = useEditions();
  const across = useAcross(review.id);
  const [chosen, setChosen] = useState(brief.edition);
  if (!recheck || !editions.data) return null;
  const ids = [brief.edition, ...(brief.comparison_editions ?? [])];
  const edition = editions.data.find((e) => e.id === (ids.includes(chosen) ? chosen : brief.edition));
  if (!edition) return null;
  const governs = edition.id === brief.edition;
  const described = across.data?.editions.find((e) => e.id === edition.id);
  const shared = new Map(
    editions.data.filter((e) => ids.includes(e.id)).flatMap((e) => e.inputs.map((i) => [i.name, i])),
  );
  const measured = MEASURED.flatMap((n) => shared.get(n) ?? []);
  // those of a direction are under Lateral, those of load cases beside the cases
  const notes = recheck.notes.filter((n) => !/^[XY]: |^the role of the load case /.test(n));
  const ownSoil = given(brief, edition.id, { name: edition.soil_input, part: "site" }, null) as
    string | null | undefined;
  const mce = given(brief, edition.id, { name: "mce", part: "site" }, null) as { T: number[] } | null | undefined;
  return (
    <div className="split">
      <main className="stage">
        <div className="stage-head">
          <h2 className="stage-title">{strings.ground}</h2>
          <span className="end">
            <span className="quiet" aria-live="polite">
              {busy ? strings.saving : ""}
            </span>
            <Button variant="default" disabled={!canUndo} onClick={undo}>
              {strings.undo}
            </Button>
          </span>
        </div>
        {ids.length > 1 && (
          <SegmentedControl
            aria-label={strings.edition}
            mt={8}
            value={edition.id}
            onChange={setChosen}
            data={ids.flatMap((id) =>
              editions.data.filter((e) => e.id === id).map((e) => ({ value: e.id, label: e.short })),
            )}
          />
        )}
        <Problems error={error} title={strings.notSavedTheValuesAre} />
        <h3 className="part">
          {strings.ourValues}
          {ids.length > 1 && strings.under(edition.title)}
        </h3>
        <EditionFields
          key={edition.id}
          edition={edition}
          brief={brief}
          change={change}
          needs={described?.needs ?? []}
          steps={across.data?.steps[edition.id]}
          wanted={(i) => i.part === "site" && !MEASURED.includes(i.name)}
        />
        <Choices edition={edition} brief={brief} change={change} />
        {mce && (
          <p className={`quiet ${css["small"] ?? ""}`}>
            {strings.multiPeriodSpectrumOfPoints(mce.T.length)}
            <button
              type="button"
              className="linklike"
              onClick={() => {
                change((b) => {
                  give(b, edition.id, { name: "mce", part: "site" }, null, null);
                });
              }}
            >
              {strings.removeIt}
            </button>
          </p>
        )}
        {edition.inputs.some((i) => i.name === "curve") ? (
          <CustomSpectrum edition={edition} brief={brief} change={change} />
        ) : (
          <HazardLookup key={`look-${edition.id}`} edition={edition} brief={brief} change={change} />
        )}
        {edition.inputs.some((i) => i.name === "site_specific") && (
          <SiteStudy key={`study-${edition.id}`} edition={edition} brief={brief} change={change} />
        )}
        {measured.length > 0 && (
          <>
            <h3 className="part">{strings.siteMeasurements}</h3>
            <div className="fields">
              {measured.map((i) => (
                <Field
                  key={i.name}
                  edition={edition}
                  input={i}
                  direction={null}
                  value={given(brief, brief.edition, i, null)}
                  standing={strings.notEntered}
                  onCommit={(v) => {
                    change((b) => {
                      give(b, b.edition, i, null, v);
                    });
                  }}
                />
              ))}
            </div>
            {described?.measured_soil && (
              <p
                className={ownSoil && ownSoil !== described.measured_soil ? "off" : "quiet"}
                style={{ fontSize: 13, margin: "6px 0 0" }}
              >
                {strings.theMeasurementsGive}
                <SymbolText text={described.measured_soil} />
                {strings.under(edition.title)}
                {ownSoil && ownSoil !== described.measured_soil ? (
                  <>
                    {strings.but}
                    <SymbolText text={ownSoil} />
                    {strings.isEntered}
                  </>
                ) : (
                  ""
                )}
                .
              </p>
            )}
          </>
        )}
        {governs && notes.length > 0 && (
          <ul className="notes">
            {notes.map((n) => (
              <li key={n}>
                <SymbolText text={n} />
              </li>
            ))}
          </ul>
        )}
        {!governs && (described?.words.ground_notes?.length ?? 0) > 0 && (
          <ul className="notes">
            {described?.words.ground_notes?.map((n) => (
              <li key={n}>
                <SymbolText text={n} />
              </li>
            ))}
          </ul>
        )}
        {governs && (
          <ChecksTable
            caption={strings.theirsAndOurs}
            checks={recheck.checks.filter((c) => c.stage === "ground")}
            selected={selected?.id}
            onSelect={select}
          />
        )}
      </main>
      <Bench stage="ground" />
    </div>
  );
}
