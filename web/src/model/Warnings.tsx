import type { ModelWarning } from "./answers";
import "./model.css";
import { strings } from "./strings";

/** What a careful analyst would remark on: what, why, and what to do. */
export function Warnings({
  warnings,
  onPoint,
}: {
  warnings: ModelWarning[];
  onPoint?: ((warning: ModelWarning) => void) | undefined;
}) {
  if (warnings.length === 0) return null;
  return (
    <section aria-label={strings.warningsAboutTheReferenceModel} className="model-warnings">
      <h3 className="part">{strings.warningsAboutTheReferenceModel}</h3>
      <ul>
        {warnings.map((w, i) => (
          <li key={i} className={w.stops ? "stops" : ""}>
            <b className={w.stops ? "limit" : "off"}>{w.message.charAt(0).toUpperCase() + w.message.slice(1)}.</b>{" "}
            <span>{w.cause.charAt(0).toUpperCase() + w.cause.slice(1)}.</span> <span className="quiet">{w.remedy}</span>
            {onPoint && (w.nodes.length > 0 || w.members.length > 0) && (
              <>
                {" "}
                <button
                  type="button"
                  className="linklike"
                  onClick={() => {
                    onPoint(w);
                  }}
                >
                  {strings.showWhere}
                </button>
              </>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
