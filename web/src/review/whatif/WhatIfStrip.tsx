import { Button, Loader } from "@mantine/core";
import { notifications } from "@mantine/notifications";
import { useReviewContext } from "../ReviewContext";
import { useBrief } from "../useBrief";
import type { Brief, Recheck } from "../../shared/api/client";
import { useEditions, type Assumptions } from "../../shared/api/queries";
import { Problems } from "../../shared/Problems";
import { SymbolText } from "../../shared/Symbol";
import { adopted, changesOf, withoutChange } from "./assumptions";
import { inputsOf, shownValue } from "./inputs";
import { strings } from "./strings";
import "./whatif.css";

interface Props {
  pending: boolean;
  error: Error | null;
  /** change another input */
  onChange: () => void;
}

/** Above every stage while something is assumed: what it is, what it changes, and what to do with it. */
export function WhatIfStrip({ pending, error, onChange }: Props) {
  const { review, recheck, stored, whatIf, flips, assume } = useReviewContext();
  const { change, error: refused } = useBrief();
  const editions = useEditions();
  if (!whatIf) return null;
  const edition = editions.data?.find((e) => e.id === review.brief.edition);
  const inputs = edition ? inputsOf(edition, review.brief) : [];
  const labels = new Map((stored ?? recheck)?.checks.map((c) => [c.id, c.label]));
  const chips = [
    ...changesOf(whatIf.patch).map(({ at, value }) => ({
      key: at.join("."),
      words: `${inputs.find((i) => i.name === at.join("."))?.words ?? at.join(" ")} ${shownValue(value)}`,
      rest: { ...whatIf, patch: withoutChange(whatIf.patch, at) },
    })),
    ...(["theirs", "ours"] as const).flatMap((side) =>
      whatIf[side].map((id) => ({
        key: `${side} ${id}`,
        words: strings[side](labels.get(id) ?? id),
        rest: { ...whatIf, [side]: whatIf[side].filter((i) => i !== id) },
      })),
    ),
  ];
  const leave = (rest: Assumptions) => {
    assume(chips.length > 1 ? rest : null);
  };
  const onBrief = Object.keys(whatIf.patch).length > 0;
  return (
    <section className="what-if-strip" aria-label={strings.whatIf}>
      <b>{strings.whatIf}</b>
      {chips.map(({ key, words, rest }) => (
        <span key={key} className="chip">
          <SymbolText text={words} />
          <button
            type="button"
            className="linklike"
            aria-label={strings.remove(words)}
            onClick={() => {
              leave(rest);
            }}
          >
            ×
          </button>
        </span>
      ))}
      <button type="button" className="linklike" onClick={onChange}>
        {strings.change} <span className="key">w</span>
      </button>
      <span role="status" className="what-if-counts">
        {pending ? (
          <>
            <Loader size={11} /> {strings.computing}
          </>
        ) : (
          !error &&
          stored &&
          recheck && (
            <>
              <b>{strings.verdictsFlip(flips.length)}</b> {countsChanged(stored, recheck)}
            </>
          )
        )}
      </span>
      <span className="what-if-acts">
        <button
          type="button"
          className="linklike"
          onClick={() => {
            void navigator.clipboard.writeText(window.location.href).then(() => {
              notifications.show({ message: strings.shared });
            });
          }}
        >
          {strings.share}
        </button>
        <button
          type="button"
          className="linklike"
          onClick={() => {
            assume(null);
          }}
        >
          {strings.discard}
        </button>
        <Button
          size="compact-sm"
          color="dark"
          disabled={!onBrief || error !== null}
          title={onBrief ? strings.adoptTitle : strings.adoptOnly}
          onClick={() => {
            change((brief: Brief) => {
              Object.assign(brief, adopted(brief, whatIf.patch));
            });
            assume(null);
            notifications.show({ message: strings.adopted, color: "teal" });
          }}
        >
          {strings.adopt}
        </Button>
      </span>
      <Problems error={error ?? refused} title={strings.cannotBe} />
    </section>
  );
}

/** The counts that are others, in words. */
const countsChanged = (stored: Recheck, recheck: Recheck): string =>
  (
    [
      ["differs", strings.differ],
      ["breaches", strings.breach],
      ["agrees", strings.agree],
    ] as const
  )
    .filter(([verdict]) => stored.counts[verdict] !== recheck.counts[verdict])
    .map(([verdict, words]) => strings.before(stored.counts[verdict], recheck.counts[verdict], words))
    .join(" · ");
