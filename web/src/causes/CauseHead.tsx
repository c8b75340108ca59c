import { Button, Loader, Popover, Progress } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useReviewContext, type ReviewContext } from "../review/ReviewContext";
import { searching } from "../shared/api/queries";
import { Mark, shapeOf } from "../shared/Mark";
import { SymbolText } from "../shared/Symbol";
import { codesOf, startOf, wordsOf } from "./causes";
import "./causes.css";
import { strings } from "./strings";

/** Above the sheet: how much is explained, and the causes by weight, each of which opens on the bench. */
export function CauseHead() {
  const { causes, causesPending, causeSearch, recheck, select } = useReviewContext();
  const [open, { toggle, close }] = useDisclosure(false);
  if (causesPending)
    return (
      <p className="cause-head quiet" role="status">
        <Loader size={12} /> {strings.searching}
      </p>
    );
  if (causeSearch) return <SearchState {...causeSearch} />;
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

/** How far the search of a large submission is; it can be stopped, and begun anew. */
function SearchState({ change, ...search }: NonNullable<ReviewContext["causeSearch"]>) {
  const runs = searching(search);
  return (
    <div className="cause-head quiet" role="status">
      <span>{runs ? strings.searching : search.status === "failed" ? strings.failed : strings.stopped}</span>
      {runs && <Progress value={100 * (search.share ?? 0)} animated w={160} aria-label={strings.searched} />}
      <Button
        variant="subtle"
        size="compact-sm"
        onClick={() => {
          change(!runs);
        }}
      >
        {runs ? strings.stop : strings.again}
      </Button>
    </div>
  );
}
