import { keepPreviousData, useMutation, useQuery, useQueryClient, type QueryClient } from "@tanstack/react-query";
import { answered, api, type Brief, type Person, type Recheck, type Review } from "./client";

const path = (id: string) => ({ params: { path: { review_id: id } } });

const asked = (id: string, submission: number | undefined) => ({
  params: { path: { review_id: id }, query: submission === undefined ? {} : { submission } },
});

export const useSession = () =>
  useQuery({ queryKey: ["session"], queryFn: () => answered(api.GET("/api/session/")), staleTime: Infinity });

/** Take another person's session: nothing of the one before stays in memory. */
export function takeSession(client: QueryClient, session: { person: Person | null }) {
  client.removeQueries({ predicate: (q) => q.queryKey[0] !== "session" });
  client.setQueryData(["session"], session);
}

export const useEditions = () =>
  useQuery({ queryKey: ["editions"], queryFn: () => answered(api.GET("/api/editions/")), staleTime: Infinity });

export const useReviews = () =>
  useQuery({ queryKey: ["reviews"], queryFn: () => answered(api.GET("/api/reviews/")) });

export const useReview = (id: string) =>
  useQuery({ queryKey: ["review", id], queryFn: () => answered(api.GET("/api/reviews/{review_id}/", path(id))) });

/** Of a submission by its number, or of the latest one that holds values. */
export const useRecheck = (id: string, submission: number | undefined, enabled = true) =>
  useQuery({
    queryKey: ["recheck", id, submission],
    queryFn: () => answered(api.GET("/api/reviews/{review_id}/recheck/", asked(id, submission))),
    enabled,
  });

/** The brief under all its editions, with what each of them still needs. */
export const useAcross = (id: string) =>
  useQuery({
    queryKey: ["across", id],
    queryFn: () => answered(api.GET("/api/reviews/{review_id}/across/", path(id))),
    placeholderData: keepPreviousData,
  });

export const useFindings = (id: string) =>
  useQuery({
    queryKey: ["findings", id],
    queryFn: () => answered(api.GET("/api/reviews/{review_id}/findings/", path(id))),
  });

export const useReports = (id: string, enabled = true) =>
  useQuery({
    queryKey: ["reports", id],
    queryFn: () => answered(api.GET("/api/reviews/{review_id}/reports/", path(id))),
    enabled,
  });

/** Ask again for everything of a review that may have changed. */
export function useRefresh(id: string) {
  const client = useQueryClient();
  return () =>
    Promise.all(
      ["review", "recheck", "findings", "reports"].map((kind) => client.invalidateQueries({ queryKey: [kind, id] })),
    );
}

interface BriefState {
  brief: Brief;
  brief_number: number;
  can_undo: boolean;
  recheck: Recheck;
}

/** Save a brief; the answer holds the recheck it leads to, so that the screens change with one round trip. */
export function useBriefChange(id: string, submission: number | undefined) {
  const client = useQueryClient();
  const key = ["review", id];
  const held = () => client.getQueryData<Review>(key);
  const mutationKey = ["change brief", id];
  // changes of one brief go one after the other, each on the state that the one before it left
  const scope = { id: mutationKey.join(" ") };
  const basedOn = () => held()?.brief_number ?? 0;
  const settle = (state: BriefState) => {
    const waiting = client.isMutating({ mutationKey }) > 1;
    client.setQueryData(key, (before: Review | undefined) =>
      before && { ...before, brief: waiting ? before.brief : state.brief, brief_number: state.brief_number, can_undo: state.can_undo },
    );
    client.setQueryData(["recheck", id, submission], state.recheck);
    void client.invalidateQueries({ queryKey: ["across", id] });
    // rechecks of other submissions rest on the brief as well
    void client.invalidateQueries({ predicate: (q) => q.queryKey[0] === "recheck" && q.queryKey[1] === id && q.queryKey[2] !== submission });
  };
  // where a change is refused, the state that is kept is fetched again
  const onError = () => client.invalidateQueries({ queryKey: key });
  const save = useMutation({
    mutationKey, scope, onError,
    mutationFn: (brief: Brief) => answered(api.PUT("/api/reviews/{review_id}/brief/", { ...asked(id, submission), body: { brief, based_on: basedOn() } })),
    // what was changed is seen at once, and the next change starts from it
    onMutate: (brief) => { client.setQueryData<Review>(key, (now) => now && { ...now, brief }); },
    onSuccess: settle,
  });
  const govern = useMutation({
    mutationKey, scope, onError,
    mutationFn: (edition: string) => answered(api.POST("/api/reviews/{review_id}/brief/govern/", { ...asked(id, submission), body: { edition, based_on: basedOn() } })),
    onSuccess: settle,
  });
  const undo = useMutation({ mutationKey, scope, onError, mutationFn: () => answered(api.POST("/api/reviews/{review_id}/brief/undo/", asked(id, submission))), onSuccess: settle });
  return { save, govern, undo, held };
}
