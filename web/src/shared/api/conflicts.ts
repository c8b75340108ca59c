import { notifications } from "@mantine/notifications";
import { ApiProblem } from "./client";
import { strings } from "../strings";

interface State<D> {
  document: D;
  number: number;
}

/**
 * Save a change of a document that others change too: on the state it was made on, or, where somebody changed it
 * meanwhile, once more on top of what they made of it, and state it.
 */
export async function applyAgainOnConflict<D, S>(
  state: State<D>,
  edit: (document: D) => void,
  save: (document: D, basedOn: number) => Promise<S>,
  now: () => Promise<State<D>>,
): Promise<S> {
  const changed = ({ document, number }: State<D>) => {
    const copy = structuredClone(document);
    edit(copy);
    return save(copy, number);
  };
  try {
    return await changed(state);
  } catch (error) {
    if (!(error instanceof ApiProblem) || error.status !== 412) throw error;
    const saved = await changed(await now());
    const who = error.problems.map((p) => p.message).join("; ");
    notifications.show({ message: strings.yourChangeWasAddedTo(who), color: "yellow", autoClose: 10_000 });
    return saved;
  }
}
