import { Loader, Popover } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useReviewContext } from "../review/ReviewContext";
import { Mark, shapeOf } from "../shared/Mark";
import { SymbolText } from "../shared/Symbol";
import { codesOf, startOf, wordsOf } from "./causes";
import "./causes.css";
import { strings } from "./strings";

/** Above the sheet: how much is explained, and the causes by weight, each of which opens on the bench. */
export function CauseHead() {
  const { causes, causesPending, recheck, select } = useReviewContext();
  const [open, { toggle, close }] = useDisclosure(false);
  if (causesPending)
    return (
      <p className="cause-head quiet" role="status">
        <Loader size={12} /> {strings.searching}
      </p>
    );
  if (!causes || !recheck || causes.deviating === 0) return null;
  if (causes.causes.length === 0) return <p className="cause-head quiet">{strings.none(causes.deviating)}</p>;
  return (
    <div className="cause-head">
      <Popover opened={open} onChange={toggle} position="bottom-start" width={520} shadow="md" trapFocus returnFocus>
        <Popover.Target>
          <button type="button" className="linklike" aria-expanded={open} onClick={toggle}>
            {strings.explain(causes.causes.length, causes.explained, causes.deviating)}
          </button>
        </Popover.Target>
        <Popover.Dropdown>
          <ol className="cause-list" aria-label={strings.causes}>
            {causes.causes.map((cause, i) => {
              const check = startOf(cause, recheck.checks);
              return (
                <li key={i}>
                  <button
                    type="button"
                    disabled={!check}
                    onClick={() => {
                      if (check) select(check.id);
                      close();
                    }}
                  >
                    {check && <Mark shape={shapeOf(check)} />}
                    <b>{check && <SymbolText text={check.label} />}</b>
                    <span>
                      <SymbolText text={wordsOf(cause)} />
                    </span>
                    <span className="quiet n" title={strings.explained(cause.explains.length)}>
                      {cause.explains.length}
                    </span>
                    <span className="quiet">{codesOf(cause)}</span>
                  </button>
                </li>
              );
            })}
          </ol>
        </Popover.Dropdown>
      </Popover>
    </div>
  );
}
