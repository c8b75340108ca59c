import { Button, SegmentedControl } from "@mantine/core";
import { useState } from "react";
import { useSearchParams } from "react-router";
import { Bench } from "../../bench/Bench";
import { useReviewContext } from "../../review/ReviewContext";
import { useEditions } from "../../shared/api/queries";
import { Mark, type MarkShape } from "../../shared/Mark";
import { countsOf, inState, stepped, type Requirement, type Which } from "./requirements";
import { RequirementRemark } from "./RequirementRemark";
import { strings } from "./strings";
import css from "./RequirementsPage.module.css";

const SHAPE: Record<Requirement["status"], MarkShape> = {
  shown: "dot",
  missing: "gap",
  open: "open",
  not_applicable: "note",
};
const WORDS: Record<Requirement["status"], string> = {
  shown: strings.shown,
  missing: strings.missingState,
  open: strings.open,
  not_applicable: strings.notApplicable,
};

/** What does the edition require, and what of it is shown? A checklist with the checks of each row. */
export default function RequirementsPage() {
  const { recheck, select, selected } = useReviewContext();
  const editions = useEditions();
  const [params, setParams] = useSearchParams();
  const [which, setWhich] = useState<Which>("all");
  if (!recheck) return null;
  const edition = editions.data?.find((e) => e.id === recheck.edition)?.title ?? recheck.edition;
  const counts = countsOf(recheck.requirements);
  const shown = inState(recheck.requirements, which);
  // what is missing comes first, until the reviewer chooses
  const chosen =
    shown.find((r) => r.id === params.get("requirement")) ??
    shown.find((r) => r.status === "missing") ??
    shown[0] ??
    null;
  const choose = (requirement: Requirement | undefined) => {
    if (!requirement) return;
    setParams(
      (p) => {
        p.set("requirement", requirement.id);
        p.delete("check");
        return p;
      },
      { replace: true },
    );
  };
  const checks = recheck.checks.filter((c) => chosen?.checks.includes(c.id));
  const first = checks.find((c) => c.verdict !== "agrees") ?? checks[0];
  return (
    <div className={`split ${css["split"] ?? ""}`}>
      <main className="stage">
        <div className="stage-head">
          <h2 className="stage-title">{strings.requirements}</h2>
          <span className="quiet">
            {strings.whatTheEditionRequires(edition)}: {strings.summary(counts.shown, counts.applying, counts.missing)}
          </span>
          <span className="end">
            <SegmentedControl
              aria-label={strings.which}
              value={which}
              onChange={(v) => {
                setWhich(v);
              }}
              data={[
                { value: "all", label: strings.all(recheck.requirements.length) },
                { value: "missing", label: strings.missing(counts.missing) },
                { value: "open", label: strings.openOnes(counts.open) },
              ]}
            />
            <Button
              variant="default"
              onClick={() => {
                window.print();
              }}
            >
              {strings.print}
            </Button>
          </span>
        </div>
        {shown.length === 0 && <p className="quiet">{strings.noneInThisFilter}</p>}
        <table className={`plain ${css["list"] ?? ""}`}>
          <thead>
            <tr>
              <th>{strings.state}</th>
              <th>{strings.requirement}</th>
              <th>{strings.clause}</th>
              <th>{strings.level}</th>
            </tr>
          </thead>
          <tbody
            onKeyDown={(e) => {
              const by = { ArrowDown: 1, ArrowUp: -1 }[e.key] as 1 | -1 | undefined;
              if (by === undefined) return;
              e.preventDefault();
              const next = stepped(shown, chosen?.id ?? null, by);
              choose(next);
              if (next) document.getElementById(`requirement-${next.id}`)?.focus();
            }}
          >
            {shown.map((r) => (
              <tr key={r.id} className={r.id === chosen?.id ? css["now"] : ""}>
                <td className={css["state"]}>
                  <Mark shape={SHAPE[r.status]} /> {WORDS[r.status]}
                </td>
                <td>
                  <button
                    id={`requirement-${r.id}`}
                    type="button"
                    className={css["row"]}
                    aria-current={r.id === chosen?.id ? "true" : undefined}
                    onClick={() => {
                      choose(r);
                    }}
                  >
                    {r.words}
                  </button>
                  {r.why && <span className={css["why"]}>{r.why}</span>}
                </td>
                <td className="quiet">{r.clause}</td>
                <td className="quiet">{r.level ?? ""}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className={`quiet ${css["keys"] ?? ""}`}>
          <span className="key">↑</span> <span className="key">↓</span>
          {strings.keys}
          <span className="key">Enter</span>
          {strings.opens}
        </p>
      </main>
      {chosen?.status === "missing" && !selected ? (
        <RequirementRemark
          key={chosen.id}
          requirement={chosen}
          edition={edition}
          checks={checks}
          onCheck={(id) => {
            select(id);
          }}
        />
      ) : (
        <Bench check={selected ?? first} />
      )}
    </div>
  );
}
