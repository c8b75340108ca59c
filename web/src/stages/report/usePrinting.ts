import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useEffectEvent } from "react";
import { ApiProblem, type Printing } from "../../shared/api/client";
import { printingQuery } from "../../shared/api/queries";

export interface Printed<T> {
  start: (what: T) => void;
  busy: boolean;
  /** of the work that is done, 0 to 1 */
  share: number;
  /** what was printed, to open */
  done: Printing | undefined;
  /** what waits for a certificate */
  toSign: Printing | undefined;
  error: Error | null;
}

const OPEN: Printing["status"][] = ["queued", "printing"];

/** Something that is printed by a worker: begun, and requested until it is there. */
export function usePrinting<T>(ask: (what: T) => Promise<Printing>, onDone?: () => unknown): Printed<T> {
  const begin = useMutation({ mutationFn: ask });
  const watched = useQuery({ ...printingQuery(begin.data?.id ?? ""), enabled: begin.data !== undefined });
  const now = begin.data && (watched.data?.id === begin.data.id ? watched.data : begin.data);
  const done = now?.status === "done" ? now : undefined;
  const doneId = done?.id;
  const notifyDone = useEffectEvent(() => void onDone?.());
  useEffect(() => {
    if (doneId) notifyDone();
  }, [doneId]);
  return {
    start: (what) => {
      begin.mutate(what);
    },
    busy: begin.isPending || (now !== undefined && OPEN.includes(now.status) && !watched.error),
    share: now?.share ?? 0,
    done,
    toSign: now?.status === "to_sign" ? now : undefined,
    error:
      begin.error ??
      watched.error ??
      (now?.status === "refused"
        ? new ApiProblem(409, [{ path: "/", message: now.message ?? "", remedy: now.remedy ?? "" }])
        : null),
  };
}
