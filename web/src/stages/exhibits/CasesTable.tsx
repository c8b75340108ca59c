import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { useReviewContext } from "../../review/ReviewContext";
import { answered, api, type Check, type LoadCase, type Submission } from "../../shared/api/client";
import { useRefresh } from "../../shared/api/queries";
import { Mark, shapeOf, verdictWords } from "../../shared/Mark";
import { counted } from "../../shared/numbers";
import { Problems } from "../../shared/Problems";
import { SymbolText } from "../../shared/Symbol";
import { flips, sideWritten, typedSide, unstated } from "./cases";
import { strings } from "./strings";

const KINDS = {
  static: strings.static,
  modal: strings.modal,
  gravity: strings.gravity,
  combination: strings.combination,
  time_history: strings.timeHistory,
  other: strings.other,
};
const DIRECTIONS = { X: "X", Y: "Y", XY: strings.xAndY, Z: strings.vertical };
const STEPS = { before: strings.beforeScaling, after: strings.afterScaling };
const LEVELS = { reduced: strings.reduced, elastic: strings.elastic, amplified: strings.amplified };
const SHOWN = 6;

/** All load cases of a submission with their roles, corrected in place; what a correction changes is stated at once. */
export function CasesTable({ submission }: { submission: Submission }) {
  const { review, recheck, select } = useReviewContext();
  const refresh = useRefresh(review.id);
  const [changed, setChanged] = useState("");
  const [before, setBefore] = useState<Check[]>([]);
  const change = useMutation({
    mutationFn: ({ of, role }: { of: LoadCase; role: Partial<LoadCase> }) =>
      answered(
        api.PATCH("/api/cases/{case_id}/", {
          params: { path: { case_id: of.id }, header: { "If-Match": `"${String(of.revision)}"` } },
          body: role,
        }),
      ),
    // where somebody changed the case meanwhile, it is shown in its present state
    onError: refresh,
    onMutate: () => {
      setBefore(recheck?.checks ?? []);
    },
    onSuccess: async (updated) => {
      await refresh();
      setChanged(updated.name);
    },
  });
  const open = submission.cases.filter((c) => unstated(c).length > 0).length;
  const flipped = changed && recheck ? flips(before, recheck.checks) : [];
  return (
    <section aria-label={strings.loadCases}>
      <h3 className="part">
        {strings.loadCasesHead}
        <span className="quiet">
          {strings.ofEachWithItsRole(counted(submission.cases.length, "case"), submission.label)}
          {open > 0 ? strings.incomplete(open) : ""}
        </span>
      </h3>
      <Problems error={change.error} title={strings.theRoleWasNotChanged} />
      {changed && !change.isPending && (
        <p className="cases-flips" role="status">
          {flipped.length === 0
            ? strings.changedNoVerdictChanged(changed)
            : strings.changedChangedWithIt(changed, counted(flipped.length, "verdict"))}
          {flipped.slice(0, SHOWN).map((c) => (
            <button
              key={c.id}
              type="button"
              className="linklike"
              onClick={() => {
                select(c.id);
              }}
            >
              <Mark shape={shapeOf(c)} /> <SymbolText text={c.label} /> {verdictWords(c)}
            </button>
          ))}
          {flipped.length > SHOWN && strings.andMore(flipped.length - SHOWN)}
        </p>
      )}
      <div className="cases">
        <table className="plain">
          <thead>
            <tr>
              <th>{strings.caseWord}</th>
              <th>{strings.kind}</th>
              <th>{strings.direction}</th>
              <th>{strings.sideOfTheMass}</th>
              <th>{strings.scaling}</th>
              <th>{strings.results}</th>
            </tr>
          </thead>
          <tbody>
            {submission.cases.map((c) => {
              const set = (role: Partial<LoadCase>) => {
                change.mutate({ of: c, role });
              };
              return (
                <tr key={c.id}>
                  <td>
                    <span className="theirs">{c.name}</span>
                    {c.by_reviewer && <div className="quiet">{strings.roleOfReviewer}</div>}
                  </td>
                  <td>
                    <Choice
                      label={strings.kindOf(c.name)}
                      value={c.kind}
                      words={KINDS}
                      onChange={(kind) => {
                        set({ kind });
                      }}
                    />
                  </td>
                  <td>
                    <Choice
                      label={strings.directionOf(c.name)}
                      value={c.direction}
                      words={DIRECTIONS}
                      onChange={(direction) => {
                        set({ direction });
                      }}
                    />
                  </td>
                  <td>
                    <Side
                      key={String(c.eccentricity)}
                      name={c.name}
                      value={c.eccentricity ?? null}
                      onChange={(eccentricity) => {
                        set({ eccentricity });
                      }}
                    />
                  </td>
                  <td>
                    {c.kind === "modal" || c.step ? (
                      <Choice
                        label={strings.scalingOf(c.name)}
                        value={c.step}
                        words={STEPS}
                        onChange={(step) => {
                          set({ step });
                        }}
                      />
                    ) : (
                      <span className="quiet">–</span>
                    )}
                  </td>
                  <td>
                    <Choice
                      label={strings.resultsOf(c.name)}
                      value={c.level}
                      words={LEVELS}
                      onChange={(level) => {
                        set({ level });
                      }}
                    />
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </section>
  );
}

/** A choice among words, with "not stated" among them; the browser's own, for there can be a hundred rows of them. */
function Choice({
  label,
  value,
  words,
  onChange,
}: {
  label: string;
  value: string | null | undefined;
  words: Record<string, string>;
  onChange: (value: string | null) => void;
}) {
  return (
    <select
      aria-label={label}
      className={value ? undefined : "quiet"}
      value={value ?? ""}
      onChange={(e) => {
        onChange(e.currentTarget.value || null);
      }}
    >
      <option value="">{strings.notStated}</option>
      {Object.entries(words).map(([id, word]) => (
        <option key={id} value={id}>
          {word}
        </option>
      ))}
    </select>
  );
}

/** The accidental eccentricity in percent of the plan dimension, with its sign. */
function Side({
  name,
  value,
  onChange,
}: {
  name: string;
  value: number | null;
  onChange: (value: number | null) => void;
}) {
  const [typed, setTyped] = useState(sideWritten(value));
  const read = typedSide(typed);
  return (
    <input
      aria-label={strings.sideOfTheMassIn(name)}
      aria-invalid={read === undefined}
      title={strings.n5Or5OfThe}
      placeholder={strings.notStated}
      size={8}
      value={typed}
      onChange={(e) => {
        setTyped(e.currentTarget.value);
      }}
      onBlur={() => {
        if (read !== undefined && read !== value) onChange(read);
      }}
      onKeyDown={(e) => {
        if (e.key === "Enter") e.currentTarget.blur();
        if (e.key === "Escape") setTyped(sideWritten(value));
      }}
    />
  );
}
