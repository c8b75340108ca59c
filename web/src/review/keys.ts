import { createContext, useContext, useEffect } from "react";
import { strings } from "./strings";

/** The keys of a review; the same list makes the help and the command palette. */
export const KEYS = [
  { act: "next", hotkey: "j", shown: "j", says: strings.nextCheck },
  { act: "previous", hotkey: "k", shown: "k", says: strings.previousCheck },
  { act: "nextDeviation", hotkey: "n", shown: "n", says: strings.nextDeviation },
  { act: "previousDeviation", hotkey: "shift+n", shown: "N", says: strings.previousDeviation },
  { act: "derivation", hotkey: "d", shown: "d", says: strings.openOrCloseTheDerivation },
  { act: "remark", hotkey: "r", shown: "r", says: strings.writeTheRemark },
  { act: "out", hotkey: "o", shown: "o", says: strings.showOnlyValuesOutOf },
  { act: "questions", hotkey: "q", shown: "q", says: strings.showOnlyQuestions },
  { act: "whatIf", hotkey: "w", shown: "w", says: strings.whatIf },
  { act: "closeFinding", hotkey: "c", shown: "c", says: strings.closeTheFinding },
  { act: "closeAll", hotkey: "shift+c", shown: "C", says: strings.closeAllThatAreResolved },
  { act: "sheet", hotkey: "s", shown: "s", says: strings.toTheSheet },
  { act: "nextStage", hotkey: "]", shown: "]", says: strings.nextStage },
  { act: "previousStage", hotkey: "[", shown: "[", says: strings.previousStage },
  { act: "help", hotkey: "shift+?", shown: "?", says: strings.showTheseKeys },
] as const;

export type Act = (typeof KEYS)[number]["act"];
type Handler = () => void;

/** What the parts of a screen do for keys that are theirs: the newest part answers. */
export class KeyHandlers {
  private readonly handlers = new Map<Act, Handler[]>();

  add(act: Act, handler: Handler): () => void {
    this.handlers.set(act, [...(this.handlers.get(act) ?? []), handler]);
    return () => {
      this.handlers.set(
        act,
        (this.handlers.get(act) ?? []).filter((h) => h !== handler),
      );
    };
  }

  /** Answer a key; whether a part of the screen did. */
  run(act: Act): boolean {
    const newest = this.handlers.get(act)?.at(-1);
    newest?.();
    return newest !== undefined;
  }
}

const Context = createContext(new KeyHandlers());

export const KeyProvider = Context.Provider;

/** Answer a key while the part is on the screen. */
export function useKey(act: Act, handler: Handler, active = true): void {
  const handlers = useContext(Context);
  useEffect(() => (active ? handlers.add(act, handler) : undefined), [handlers, act, handler, active]);
}
