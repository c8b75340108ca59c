import { Bench } from "../../bench/Bench";
import { AskOurModel } from "../../model/AskOurModel";
import { useReviewContext } from "../../review/ReviewContext";
import { ChecksTable } from "../../shared/ChecksTable";
import { NothingYet } from "../../shared/NothingYet";
import { Ladder } from "./Ladder";
import "./scaling.css";

/** Is the modal base shear what the modes give, and is it brought up to what the code asks for? */
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
          <h2 className="stage-title">Scaling</h2>
          <span className="quiet">
            is the modal base shear brought up to what the code asks for, in each direction?
          </span>
        </div>
        {stage ? (
          <>
            <AskOurModel
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
                ? `The factor applies to ${applies.join(" and ")} (${stage.clause}).`
                : `This edition doesn't scale modal results to the static base shear (${stage.clause}).`}
            </p>
            <ChecksTable caption="Checks of the scaling" checks={checks} selected={selected?.id} onSelect={select} />
          </>
        ) : (
          <NothingYet
            what="Nothing is stated of a modal base shear"
            hand="parameters (dynamic base shear before and after scaling, scale factor), or base reactions by case"
          />
        )}
      </main>
      <Bench stage="scaling" />
    </div>
  );
}
