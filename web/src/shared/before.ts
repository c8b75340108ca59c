import { createContext, useContext } from "react";
import type { Check } from "./api/client";

/** The checks without what is assumed, by their ids; empty where nothing is. */
export type Before = ReadonlyMap<string, Check>;

const Context = createContext<Before>(new Map());

export const BeforeProvider = Context.Provider;

export const useBefore = (): Before => useContext(Context);

/** Relative difference from which a value counts as another one. */
const MOVED = 1e-4;

/** Our value of a check as it was, where it is another one now. */
export function movedFrom(before: Before, check: Check): number | string | undefined {
  const was = oursOf(before.get(check.id));
  const is = oursOf(check);
  if (was === undefined || is === undefined || was === is) return undefined;
  if (typeof was === "number" && typeof is === "number" && Math.abs(is - was) <= MOVED * Math.abs(was))
    return undefined;
  return was;
}

const oursOf = (check: Check | undefined): number | string | undefined => {
  const side = check?.independent ?? check?.carried;
  return side?.value;
};
