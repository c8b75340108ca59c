import { Button, TextInput } from "@mantine/core";
import { useState } from "react";
import { useBrief } from "../review/useBrief";
import type { Verdict } from "../shared/api/client";
import { useVocabulary } from "../shared/api/queries";
import { Problems } from "../shared/Problems";
import { strings } from "./strings";
import css from "./Bench.module.css";

/** The mistake of the catalogue that explains a check: its code and title, and the rest where it is opened. */
export function CatalogueCode({ code, verdict }: { code: string; verdict: Verdict }) {
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
      {(verdict === "question" || verdict === "note") && <SettingAside code={code} />}
    </details>
  );
}

/** A test whose questions and notes do not matter in this review: set aside with a reason, or taken up again. */
function SettingAside({ code }: { code: string }) {
  const { brief, change, error, busy } = useBrief();
  const [reason, setReason] = useState("");
  const aside = brief.set_aside?.find((s) => s.code === code);
  if (aside)
    return (
      <p>
        {strings.setAside(aside.reason)}{" "}
        <button
          type="button"
          className="linklike"
          onClick={() => {
            change((b) => {
              b.set_aside = (b.set_aside ?? []).filter((s) => s.code !== code);
            });
          }}
        >
          {strings.takeUpAgain}
        </button>
      </p>
    );
  return (
    <form
      className={css["aside"]}
      onSubmit={(e) => {
        e.preventDefault();
        change((b) => {
          b.set_aside = [...(b.set_aside ?? []), { code, reason: reason.trim() }];
        });
      }}
    >
      <TextInput
        aria-label={strings.reasonToSetItAside}
        placeholder={strings.reasonToSetItAside}
        size="xs"
        value={reason}
        maxLength={500}
        onChange={(e) => {
          setReason(e.currentTarget.value);
        }}
      />
      <Button type="submit" size="compact-sm" variant="default" disabled={reason.trim().length < 3} loading={busy}>
        {strings.setItAside}
      </Button>
      <Problems error={error} title={strings.notSetAside} />
    </form>
  );
}
