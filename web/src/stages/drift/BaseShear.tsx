import type { Schemas } from "../../shared/api/client";
import { figures, trimmed } from "../../shared/numbers";
import { SymbolText } from "../../shared/Symbol";

/** The base shear that drifts rest on beside that of the forces, and what modal drifts are multiplied by. */
export function BaseShear({ shear }: { shear: Schemas["BaseShearForDrift"] }) {
  const same = shear.V_forces !== null && Math.abs(shear.V - shear.V_forces) <= 1e-6 * shear.V_forces;
  return (
    <p className="drift-shear">
      <span className="quiet">Base shear for drift </span>
      <b className="ours">{figures(shear.V)} kN</b>
      {shear.T !== null && (
        <span className="quiet">
          {" "}
          at T = {trimmed(shear.T)} s
          {shear.governed_by && (
            <>
              , <SymbolText text={shear.governed_by} /> governs
            </>
          )}
        </span>
      )}
      <span className="quiet"> · {shear.clause}</span>
      <span className="quiet">
        {same
          ? "; the same as that of the forces"
          : shear.V_forces !== null && <>; the forces are for {figures(shear.V_forces)} kN</>}
        {shear.factor !== null && (
          <>
            ; modal drifts{" "}
            {shear.factor === 1 ? (
              "are not scaled"
            ) : (
              <>
                are scaled by at least <b className="ours">{figures(shear.factor)}</b>
              </>
            )}
          </>
        )}
      </span>
    </p>
  );
}
