import { Link } from "react-router";
import type { Finding } from "../../shared/api/client";
import { Mark, shapeOf } from "../../shared/Mark";
import { oursText, percent, theirsText } from "../../shared/numbers";
import { SymbolText } from "../../shared/Symbol";
import { strings } from "./strings";

const MOST_LISTED = 12;

/** The checks of a finding as they were when they were linked to it. */
export function Evidence({ finding, reviewId, onTeam }: { finding: Finding; reviewId: string; onTeam: boolean }) {
  const all = [...finding.evidence, ...finding.further.map((f) => f.evidence)];
  if (all.length === 0) return null;
  return (
    <>
      <div className="bench-part">
        <h3>{strings.evidenceAsFiled}</h3>
      </div>
      <table className="plain">
        <thead>
          <tr>
            <th>{strings.value}</th>
            <th className="n">{strings.theirs}</th>
            <th className="n">{strings.ours}</th>
            <th className="n">{strings.deviation}</th>
          </tr>
        </thead>
        <tbody>
          {all.slice(0, MOST_LISTED).map((c) => {
            const ours = c.role === "origin" ? (c.carried ?? c.independent) : (c.independent ?? c.carried);
            return (
              <tr key={c.id}>
                <td>
                  <Mark shape={shapeOf(c)} />{" "}
                  {onTeam ? (
                    <Link to={`/reviews/${reviewId}/sheet?check=${encodeURIComponent(c.id)}`}>
                      <SymbolText text={c.label} />
                    </Link>
                  ) : (
                    <SymbolText text={c.label} />
                  )}
                </td>
                <td className="n theirs">{c.theirs ? theirsText(c) : strings.notStated}</td>
                <td className="n ours">{ours ? oursText(ours.value, c) : "–"}</td>
                <td className="n off">{ours?.deviation == null ? "" : percent(ours.deviation)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {all.length > MOST_LISTED && (
        <p className="quiet">
          {strings.and}
          {all.length - MOST_LISTED}
          {strings.moreThatDependOnIt}
        </p>
      )}
    </>
  );
}
