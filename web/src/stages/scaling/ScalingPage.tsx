import { Bench } from "../../bench/Bench";
import { ReferenceResponse } from "../../review/ReferenceResponse";
import { useReviewContext } from "../../review/ReviewContext";
import { ChecksTable } from "../../shared/ChecksTable";
import { EmptyStage } from "../../shared/EmptyStage";
import { Ladder } from "./Ladder";
import "./scaling.css";
import { strings } from "./strings";

/** Is the modal base shear what the modes give, and is it brought up to what the code requires? */
export default function ScalingPage() {
  const { recheck, selected, select } = useReviewContext();
  if (!recheck) return null;
  const stage = recheck.stages.scaling;
  const checks = recheck.checks.filter((c) => c.stage === "scaling");
  const applies = stage?.applies_to ?? [];
  return (
    <div className="split wide">
      <main className="stage">
        <div className="stage-head">
          <h2 className="stage-title">{strings.scaling}</h2>
          <span className="quiet">{strings.modalBaseShearAgainstThe}</span>
        </div>
        {stage ? (
          <>
            <ReferenceResponse
              kinds={["response_X", "response_Y"]}
              answered={(["X", "Y"] as const).every((d) => !stage[d] || stage[d].before_model !== null)}
            />
            {(["X", "Y"] as const).map((d) => {
              const shears = stage[d];
              return (
                shears && <Ladder key={d} direction={d} shears={shears} checks={recheck.checks} onSelect={select} />
              );
            })}
            <p className="quiet">
              {applies.length > 0
                ? strings.theFactorAppliesTo(applies.join(" and "), stage.clause)
                : strings.thisEditionDoesNotScale(stage.clause)}
            </p>
            <ChecksTable
              caption={strings.checksOfTheScaling}
              checks={checks}
              selected={selected?.id}
              onSelect={select}
            />
          </>
        ) : (
          <EmptyStage what={strings.noModalBaseShearIs} needed={strings.parametersDynamicBaseShearBefore} />
        )}
      </main>
      <Bench stage="scaling" />
    </div>
  );
}
