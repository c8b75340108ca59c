import { useCallback, useState } from "react";
import { useKey } from "../review/keys";
import type { Check, Step } from "../shared/api/client";
import { figures, percent } from "../shared/numbers";
import { SymbolText } from "../shared/Symbol";
import { Tex } from "../shared/Tex";
import { Steps, substituted, symbolic, texNumber, valueText, withUnit } from "./derivation";
import { strings } from "./strings";

interface Props {
  id: string;
  steps: Steps;
  index: number | null;
  checks: Check[];
  onSelect: (id: string) => void;
}

const SOURCES: Record<Step["source"], string> = {
  input: strings.fromTheBrief,
  adopted: strings.fromTheSubmission,
  pinned: strings.asSubmitted,
  rule: "",
  found: strings.foundByOurComputation,
  declared: strings.declaredInTheBrief,
  submitted: strings.statedByTheSubmission,
  assumed: strings.assumedNotStatedAnywhere,
};

/** The steps of a value; each input opens into its own steps. */
export function Derivation({ id, steps, index, checks, onSelect }: Props) {
  const step = steps.get(id);
  if (!step) return <p className="quiet">{strings.noDerivationSubmittedValuesAre}</p>;
  return <One step={step} steps={steps} index={index} checks={checks} onSelect={onSelect} depth={0} />;
}

function One({ step, steps, index, checks, onSelect, depth }: Omit<Props, "id"> & { step: Step; depth: number }) {
  const [open, setOpen] = useState<string | null>(null);
  // the key `d` opens the first input of the outermost step, or folds what is open
  const toggle = useCallback(() => {
    setOpen((o) => (o ? null : (step.inputs.find((i) => steps.get(i)?.source === "rule") ?? step.inputs[0] ?? null)));
  }, [step, steps]);
  useKey("derivation", toggle, depth === 0);

  if (step.source !== "rule") {
    return (
      <div className="why">
        <p className="why-clause">{SOURCES[step.source]}</p>
        <p>
          <SymbolText text={step.symbol} /> ={" "}
          <span className={step.source === "pinned" ? "theirs" : "ours"}>
            {withUnit(valueText(step, index), step.unit)}
          </span>
        </p>
      </div>
    );
  }
  const numbers = substituted(step, steps);
  const result = Array.isArray(step.value) ? (index === null ? undefined : step.value[index]) : step.value;
  const resultTex = result === undefined || typeof result === "boolean" ? null : texNumber(step, result);
  const opened = open ? steps.get(open) : undefined;
  const stepCheck = checks.find((c) => c.step === step.id && c.story === null && c.point === null);
  return (
    <div className="why">
      <p className="why-clause">
        {step.clause}
        {step.governed_by && step.candidates.length > 1 && (
          <>
            {strings.governedBy}
            <b>
              <SymbolText text={step.governed_by} />
            </b>
            {step.margin !== null && Math.abs(step.margin) < 10 && strings.by(percent(step.margin).replace("+", ""))}
          </>
        )}
      </p>
      {step.tex && (
        <div className="why-equation">
          <Tex tex={symbolic(step, steps)} />
        </div>
      )}
      {numbers && (
        <div className="why-equation">
          <Tex tex={`{}= ${numbers}`} />
        </div>
      )}
      {resultTex !== null && (
        <div className="why-equation why-result">
          <Tex tex={`{}= ${resultTex}${step.unit ? `\\ \\mathrm{${step.unit.replace("*", "\\,")}}` : ""}`} />
        </div>
      )}
      {resultTex === null && (
        <p>
          <SymbolText text={step.symbol} />: <span className="ours">{withUnit(valueText(step, index), step.unit)}</span>
        </p>
      )}
      {step.candidates.length > 1 && (
        <p className="why-candidates">
          {step.candidates.map((c) => (
            <span key={c.label} className={c.label === step.governed_by ? "ours" : "quiet"}>
              <SymbolText text={c.label} /> {{ base: "", upper: strings.atMost, lower: strings.atLeast }[c.role]}
              {figures(c.value)}
            </span>
          ))}
        </p>
      )}
      <p className="why-needs">
        {step.inputs.length > 0 && <span className="quiet">{strings.needs}</span>}
        {step.inputs.map((id) => {
          const input = steps.get(id);
          return input ? (
            <button
              key={id}
              type="button"
              className="linklike"
              aria-expanded={open === id}
              onClick={() => {
                setOpen(open === id ? null : id);
              }}
            >
              <SymbolText text={input.symbol} /> <span className="why-value">{valueText(input, index)}</span>
            </button>
          ) : null;
        })}
        {depth > 0 && stepCheck && (
          <button
            type="button"
            className="linklike"
            onClick={() => {
              onSelect(stepCheck.id);
            }}
          >
            {strings.goToThisCheck}
          </button>
        )}
      </p>
      {opened && (
        <One step={opened} steps={steps} index={index} checks={checks} onSelect={onSelect} depth={depth + 1} />
      )}
    </div>
  );
}
