import type { Recheck } from "../../shared/api/client";
import { figures, trimmed } from "../../shared/numbers";
import { SymbolText } from "../../shared/Symbol";
import { strings } from "./strings";

type Drifts = NonNullable<NonNullable<Recheck["stages"]["drift"]>["X"]>;

/** From the elastic drift of the worst story to what is checked against the limit, each factor with its clause. */
export function Chain({ drifts }: { drifts: Drifts }) {
  if (drifts.chain.length === 0) return null;
  const limit = drifts.limit.find((v) => v !== null);
  return (
    <section aria-label={strings.derivationOfTheDesignDrift}>
      <h3 className="part">
        {strings.fromElasticToDesignDrift}
        <span className="quiet">
          {strings.at}
          {drifts.chain_story}
          {strings.whereItIsGreatest}
        </span>
      </h3>
      <div className="chain">
        {drifts.chain.map((p) => (
          <span key={p.symbol} className="chain-part" title={p.words}>
            <span className="quiet">
              <SymbolText text={p.symbol} />
            </span>
            <b className={p.symbol === "δ_e" ? "theirs" : "ours"}>
              {p.unit === "m" ? strings.inMm(figures(1000 * p.value)) : trimmed(p.value)}
            </b>
            <small>{p.clause ? p.clause.split(",")[0] : p.words}</small>
          </span>
        ))}
        {limit != null && (
          <span className="chain-part">
            <span className="quiet">{strings.limit}</span>
            <b className="limit">{trimmed(limit)}</b>
            <small>{strings.ofTheHeight}</small>
          </span>
        )}
      </div>
    </section>
  );
}
