import { createContext, useContext, useEffect } from "react";

/** The keys of a review; the same list makes the help and the command palette. */
export const KEYS = [
  { act: "next", hotkey: "j", shown: "j", says: "next check" },
  { act: "previous", hotkey: "k", shown: "k", says: "previous check" },
  { act: "nextDeviation", hotkey: "n", shown: "n", says: "next deviation" },
  { act: "previousDeviation", hotkey: "shift+n", shown: "N", says: "previous deviation" },
  { act: "derivation", hotkey: "d", shown: "d", says: "open or fold the derivation" },
  { act: "remark", hotkey: "r", shown: "r", says: "write the remark" },
  { act: "out", hotkey: "o", shown: "o", says: "show only what is out of plumb" },
  { act: "sheet", hotkey: "s", shown: "s", says: "to the sheet" },
  { act: "nextStage", hotkey: "]", shown: "]", says: "next stage" },
  { act: "previousStage", hotkey: "[", shown: "[", says: "previous stage" },
  { act: "help", hotkey: "shift+?", shown: "?", says: "these keys" },
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

  run(act: Act): void {
    this.handlers.get(act)?.at(-1)?.();
  }
}

const Context = createContext(new KeyHandlers());

export const KeyProvider = Context.Provider;

/** Answer a key while the part is on the screen. */
export function useKey(act: Act, handler: Handler, active = true): void {
  const handlers = useContext(Context);
  useEffect(() => (active ? handlers.add(act, handler) : undefined), [handlers, act, handler, active]);
}
