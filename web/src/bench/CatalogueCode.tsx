import { useVocabulary } from "../shared/api/queries";
import { strings } from "./strings";
import css from "./Bench.module.css";

/** The mistake of the catalogue that explains a check: its code and title, and the rest where it is opened. */
export function CatalogueCode({ code }: { code: string }) {
  const entry = useVocabulary().data?.catalogue.find((e) => e.code === code);
  if (!entry) return null;
  const parts = [
    [strings.looksLike, entry.appearance],
    [strings.whyItHappens, entry.why],
    [strings.howItIsFound, entry.test],
    [strings.clauses, entry.clause],
    [strings.toCorrect, entry.correct],
  ] as const;
  return (
    <details className={css["code"]}>
      <summary>
        <b>{entry.code}</b> {entry.title}
      </summary>
      <dl>
        {parts.map(([name, text]) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>{text}</dd>
          </div>
        ))}
      </dl>
    </details>
  );
}
