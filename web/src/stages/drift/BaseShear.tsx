import type { Schemas } from "../../shared/api/client";
import { figures, trimmed } from "../../shared/numbers";
import { SymbolText } from "../../shared/Symbol";
import { strings } from "./strings";

/** The base shear that drifts rest on beside that of the forces, and what modal drifts are multiplied by. */
export function BaseShear({ shear }: { shear: Schemas["BaseShearForDrift"] }) {
  const same = shear.V_forces !== null && Math.abs(shear.V - shear.V_forces) <= 1e-6 * shear.V_forces;
  return (
    <p className="drift-shear">
      <span className="quiet">{strings.baseShearForDrift}</span>
      <b className="ours">{strings.kn(figures(shear.V))}</b>
      {shear.T !== null && (
        <span className="quiet">
          {strings.atTS(trimmed(shear.T))}
          {shear.governed_by && (
            <>
              , <SymbolText text={shear.governed_by} />
              {strings.governs}
            </>
          )}
        </span>
      )}
      <span className="quiet"> · {shear.clause}</span>
      <span className="quiet">
        {same
          ? strings.theSameAsForThe
          : shear.V_forces !== null && <>{strings.theForcesAreForKn(figures(shear.V_forces))}</>}
        {shear.factor !== null && (
          <>
            {strings.modalDrifts}
            {shear.factor === 1 ? (
              strings.areNotScaled
            ) : (
              <>
                {strings.areScaledByAtLeast}
                <b className="ours">{figures(shear.factor)}</b>
              </>
            )}
          </>
        )}
      </span>
    </p>
  );
}
