import type { Recheck } from "../../shared/api/client";
import { figures, percent } from "../../shared/numbers";
import { strings } from "./strings";

/** What each of their modes gives by our curve: its base shear, and over the weight (share of the mass × ordinate). */
export function ModalShears({ recheck }: { recheck: Recheck }) {
  const scaling = recheck.stages.scaling;
  const theirs = recheck.modes?.theirs.filter((m) => m.T !== null) ?? [];
  const shears = { X: scaling?.X?.of_modes ?? [], Y: scaling?.Y?.of_modes ?? [] };
  if (!scaling || (shears.X.length === 0 && shears.Y.length === 0) || theirs.length === 0) return null;
  return (
    <>
      <h3 className="part">
        {strings.baseShearOfEachOf}
        <span className="quiet">{strings.shareOfTheMassOur}</span>
      </h3>
      <table className="plain" aria-label={strings.modalShearsLabel}>
        <thead>
          <tr>
            <th>{strings.theirMode}</th>
            <th className="n">T, s</th>
            <th className="n">{strings.vInX}</th>
            <th className="n">{strings.vInY}</th>
          </tr>
        </thead>
        <tbody>
          {theirs.map((m, i) => (
            <tr key={m.mode}>
              <td className="theirs">{m.mode}</td>
              <td className="n theirs">{m.T?.toFixed(3)}</td>
              {(["X", "Y"] as const).map((d) => (
                <td key={d} className="n ours">
                  {shears[d][i] === undefined ? "–" : figures(shears[d][i])}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <td className="quiet" colSpan={2}>
              {strings.combinedAndDeviation}
            </td>
            {(["X", "Y"] as const).map((d) => {
              const [ours, own] = [scaling[d]?.before_ours ?? null, scaling[d]?.before_theirs ?? null];
              return (
                <td key={d} className="n">
                  <b className="ours">{ours === null ? "–" : figures(ours)}</b>{" "}
                  <span className="quiet">{ours && own !== null ? percent((own - ours) / ours) : ""}</span>
                </td>
              );
            })}
          </tr>
        </tfoot>
      </table>
    </>
  );
}
