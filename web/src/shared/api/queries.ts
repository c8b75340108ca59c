import {
  keepPreviousData,
  queryOptions,
  useMutation,
  useQuery,
  useQueryClient,
  type QueryClient,
} from "@tanstack/react-query";
import { useEffect, useMemo } from "react";
import {
  answered,
  api,
  type Brief,
  type Causes,
  type CauseSearch,
  type Check,
  type CheckPage,
  type ChecksApart,
  type Session,
  type Recheck,
  type Review,
  type Grid,
  type ReadTable,
  type ReviewSummary,
  type Run,
} from "./client";
import { applyAgainOnConflict } from "./conflicts";
import { forgetDrafts } from "../useDraft";

const ofReview = (id: string) => ({ params: { path: { review_id: id } } });

const recheckRequest = (id: string, submission: number | undefined) => ({
  params: { path: { review_id: id }, query: submission === undefined ? {} : { submission } },
});

// what is required, once: its key and how it is fetched; what changes it refers to its key

export const sessionQuery = queryOptions({
  queryKey: ["session"],
  queryFn: () => answered(api.GET("/api/session/")),
  staleTime: Infinity,
});

export const editionsQuery = queryOptions({
  queryKey: ["editions"],
  queryFn: () => answered(api.GET("/api/editions/")),
  staleTime: Infinity,
});

/** Stages, kinds of checks and kinds of tables, with their titles. */
export const vocabularyQuery = queryOptions({
  queryKey: ["vocabulary"],
  queryFn: () => answered(api.GET("/api/vocabulary/")),
  staleTime: Infinity,
});

const PAGE = 100;

export const reviewsQuery = queryOptions({
  queryKey: ["reviews"],
  queryFn: async () => {
    // stated in pages of a hundred; an office has a few of them at most
    const all: ReviewSummary[] = [];
    for (;;) {
      const page = await answered(api.GET("/api/reviews/", { params: { query: { offset: all.length, limit: PAGE } } }));
      all.push(...page);
      if (page.length < PAGE) return all;
    }
  },
});

/** The desk: the person's reviews by words, or those that were put away. */
export const deskQuery = (words: string, archived: boolean) =>
  queryOptions({
    queryKey: ["desk", words, archived],
    queryFn: () => answered(api.GET("/api/desk/", { params: { query: { words, archived } } })),
    placeholderData: keepPreviousData,
  });

export const reviewQuery = (id: string) =>
  queryOptions({
    queryKey: ["review", id],
    queryFn: () => answered(api.GET("/api/reviews/{review_id}/", ofReview(id))),
  });

/** Of a submission by its number, or of the latest one that holds values. */
export const recheckQuery = (id: string, submission: number | undefined) =>
  queryOptions({
    queryKey: ["recheck", id, submission],
    queryFn: () => answered(api.GET("/api/reviews/{review_id}/recheck/", recheckRequest(id, submission))),
  });

/** The checks of a large sheet that were not sent with it, page after page. */
const pagesQuery = (id: string, { recheck, pages }: ChecksApart) =>
  queryOptions({
    queryKey: ["recheck pages", id, recheck],
    staleTime: Infinity,
    gcTime: 0,
    retry: false,
    queryFn: async () => {
      const all: CheckPage[] = [];
      while (all.length < pages) {
        const path = { review_id: id, recheck, number: all.length + 1 };
        all.push(await answered(api.GET("/api/reviews/{review_id}/recheck/{recheck}/{number}/", { params: { path } })));
      }
      return all;
    },
  });

/** A sheet with all its checks in their order, as far as they are here; they are what is out of plumb first. */
export function useWholeSheet(id: string, sheet: Recheck | undefined) {
  const apart = sheet?.apart;
  const pages = useQuery({
    ...pagesQuery(id, apart ?? { recheck: "", places: [], checks: 0, inherited: 0, pages: 0 }),
    enabled: apart !== undefined,
  });
  const client = useQueryClient();
  const lost = pages.error;
  useEffect(() => {
    // the review changed meanwhile, and what was being fetched is of its earlier state
    if (lost) void client.invalidateQueries({ queryKey: ["recheck", id] });
  }, [client, id, lost]);
  return useMemo(() => (sheet && pages.data ? whole(sheet, pages.data) : sheet), [sheet, pages.data]);
}

/** A sheet and the pages of its checks as one. */
export function whole(sheet: Recheck, pages: CheckPage[]): Recheck {
  const { apart, ...retained } = sheet;
  if (!apart) return sheet;
  const checks = new Array<Check>(apart.checks);
  for (const part of [{ places: apart.places, checks: sheet.checks }, ...pages]) {
    part.checks.forEach((check, i) => {
      const place = part.places[i];
      if (place !== undefined) checks[place] = check;
    });
  }
  return { ...retained, checks };
}

/** Which mistakes give the submitted numbers, of the recheck that came at a time. */
export const causesQuery = (id: string, submission: number | undefined, at: number) =>
  queryOptions({
    queryKey: ["causes", id, submission, at],
    staleTime: Infinity,
    queryFn: () => answered(api.GET("/api/reviews/{review_id}/causes/", recheckRequest(id, submission))),
    refetchInterval: ({ state }) => (isSearch(state.data) && searching(state.data) ? LOOK_AGAIN : false),
  });

/** ms between looks at how far a search is. */
const LOOK_AGAIN = 500;
/** Whether the answer is how far the search for causes is, and not the causes. */
export const isSearch = (answer: Causes | CauseSearch | undefined): answer is CauseSearch =>
  answer !== undefined && "share" in answer;
export const searching = ({ status }: CauseSearch): boolean => status === "queued" || status === "running";

/** Stop the search for causes, or begin it anew. */
export function useCauseSearch(id: string, submission: number | undefined, at: number) {
  const client = useQueryClient();
  const { queryKey } = causesQuery(id, submission, at);
  return useMutation({
    mutationFn: (begin: boolean) => {
      const request = recheckRequest(id, submission);
      return begin
        ? answered(api.POST("/api/reviews/{review_id}/causes/", request))
        : answered(api.DELETE("/api/reviews/{review_id}/causes/", request));
    },
    onSettled: () => client.invalidateQueries({ queryKey }),
  });
}

/** What is otherwise: a merge patch of the brief, and values of one side on the other, by the ids of their checks. */
export interface Assumptions {
  patch: Record<string, unknown>;
  theirs: string[];
  ours: string[];
}

/** The recheck under assumptions, of the recheck that came at a time; nothing of it is stored. */
export const whatIfQuery = (id: string, submission: number | undefined, at: number, assumptions: Assumptions) =>
  queryOptions({
    queryKey: ["what-if", id, submission, at, assumptions],
    staleTime: Infinity,
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(api.POST("/api/reviews/{review_id}/what-if/", { ...recheckRequest(id, submission), body: assumptions })),
  });

/** What each doubtful input changes, of the recheck that came at a time. */
export const sensitivityQuery = (id: string, submission: number | undefined, at: number) =>
  queryOptions({
    queryKey: ["sensitivity", id, submission, at],
    staleTime: Infinity,
    queryFn: () => answered(api.GET("/api/reviews/{review_id}/sensitivity/", recheckRequest(id, submission))),
  });

export type Side = "independent" | "carried";

/** The steps that a value of ours rests on, of the recheck that came at a time. */
export const derivationQuery = (id: string, submission: number | undefined, at: number, side: Side, step: string) =>
  queryOptions({
    queryKey: ["derivation", id, submission, at, side, step],
    staleTime: Infinity,
    queryFn: () =>
      answered(
        api.GET("/api/reviews/{review_id}/derivation/", {
          params: {
            path: { review_id: id },
            query: { side, step, ...(submission === undefined ? {} : { submission }) },
          },
        }),
      ),
    // of the step that was assessed the old numbers stay until the new ones are there
    placeholderData: (before, query) => (query?.queryKey[5] === step ? before : undefined),
  });

/** The brief under all its editions, with what each of them still needs. */
export const acrossQuery = (id: string) =>
  queryOptions({
    queryKey: ["across", id],
    queryFn: () => answered(api.GET("/api/reviews/{review_id}/across/", ofReview(id))),
    placeholderData: keepPreviousData,
  });

export const findingsQuery = (id: string) =>
  queryOptions({
    queryKey: ["findings", id],
    queryFn: () => answered(api.GET("/api/reviews/{review_id}/findings/", ofReview(id))),
  });

/** What became of a submission in a later one, of the recheck that came at a time. */
export const differenceQuery = (id: string, before: number | undefined, after: number | undefined, at: number) =>
  queryOptions({
    queryKey: ["difference", id, before, after, at],
    queryFn: () =>
      answered(
        api.GET("/api/reviews/{review_id}/difference/", {
          params: {
            path: { review_id: id },
            query: { ...(before === undefined ? {} : { before }), ...(after === undefined ? {} : { after }) },
          },
        }),
      ),
    placeholderData: keepPreviousData,
  });

/** Of each finding, how the worst of its checks stood in each submission. */
export const historiesQuery = (id: string) =>
  queryOptions({
    queryKey: ["histories", id],
    queryFn: () => answered(api.GET("/api/reviews/{review_id}/findings/history/", ofReview(id))),
  });

/** Remarks of the office's library with the values of a check. */
export const offeredQuery = (id: string, check: string, submission: number) =>
  queryOptions({
    queryKey: ["remarks", id, check, submission],
    staleTime: 60_000,
    queryFn: () =>
      answered(
        api.GET("/api/reviews/{review_id}/remarks/", {
          params: { path: { review_id: id }, query: { check, submission } },
        }),
      ),
  });

export const reportsQuery = (id: string) =>
  queryOptions({
    queryKey: ["reports", id],
    queryFn: () => answered(api.GET("/api/reviews/{review_id}/reports/", ofReview(id))),
  });

/** The printing of a report; requested again until it is done. */
export const printingQuery = (id: string) =>
  queryOptions({
    queryKey: ["printing", id],
    queryFn: () => answered(api.GET("/api/printings/{printing_id}/", { params: { path: { printing_id: id } } })),
    refetchInterval: (query) => {
      const status = query.state.data?.status;
      return status === "done" || status === "refused" || status === "to_sign" ? false : 500;
    },
  });

/** Which sections the report of a review has, and how many signatures it requires. */
export const planQuery = (id: string) =>
  queryOptions({
    queryKey: ["report plan", id],
    queryFn: () => answered(api.GET("/api/reviews/{review_id}/report/plan/", ofReview(id))),
  });

/** The review's reference model in its present state. */
export const modelQuery = (id: string) =>
  queryOptions({
    queryKey: ["model", id],
    queryFn: () => answered(api.GET("/api/reviews/{review_id}/model/", ofReview(id))),
  });

export type RunKind =
  "model" | "modal" | "response_X" | "response_Y" | "static_response" | "irregularity" | `history ${string}`;

/** The run that answers a question of a kind to a state of the model under a state of the brief. */
export const runQuery = (id: string, kind: RunKind, model: number, brief: number) =>
  queryOptions({
    queryKey: ["run", id, kind, model, brief],
    staleTime: Infinity,
    queryFn: () => answered(api.POST("/api/reviews/{review_id}/runs/", { ...ofReview(id), body: { kind } })),
  });

export const isOpen = (run: Run | undefined) => run?.status === "queued" || run?.status === "running";

/** A run that is assessed again and again until it has its answer. */
export const watchedRunQuery = (run: string) =>
  queryOptions({
    queryKey: ["watched", run],
    refetchInterval: (q) => (isOpen(q.state.data) || !q.state.data ? 400 : false),
    queryFn: () => answered(api.GET("/api/runs/{run_id}/", { params: { path: { run_id: run } } })),
  });

/** The frame of a grid over the brief's stories; nothing is saved. */
export const gridQuery = (id: string, grid: Grid) =>
  queryOptions({
    queryKey: ["grid", id, grid],
    placeholderData: keepPreviousData,
    queryFn: () => answered(api.POST("/api/reviews/{review_id}/model/frame/", { ...ofReview(id), body: { grid } })),
  });

/** How a table is understood; nothing is saved. */
export const tableQuery = (id: string, body: ReadTable) =>
  queryOptions({
    queryKey: ["table", id, body],
    queryFn: () => answered(api.POST("/api/reviews/{review_id}/tables/read/", { ...ofReview(id), body })),
    placeholderData: keepPreviousData,
    staleTime: 0,
    gcTime: 0,
  });

/** An exhibit; requested again while it is being read. */
export const exhibitQuery = (id: number) =>
  queryOptions({
    queryKey: ["exhibit", id],
    queryFn: () => answered(api.GET("/api/exhibits/{exhibit_id}/", { params: { path: { exhibit_id: id } } })),
    refetchInterval: (query) => {
      const status = query.state.data?.reading?.status;
      return status === "queued" || status === "reading" ? 600 : false;
    },
  });

/** A page of an exhibit with the places of its tables. */
export const pageQuery = (exhibit: number, page: number) =>
  queryOptions({
    queryKey: ["page", exhibit, page],
    queryFn: () =>
      answered(
        api.GET("/api/exhibits/{exhibit_id}/pages/{page}/", { params: { path: { exhibit_id: exhibit, page } } }),
      ),
    retry: false,
  });

/** Profiles of tables that the person can see. */
export const profilesQuery = queryOptions({
  queryKey: ["profiles"],
  queryFn: () => answered(api.GET("/api/profiles/")),
});

/** The design spectrum of an edition, elastic and reduced, at the periods of a request. */
export const curveQuery = (request: { kind: "spectrum" } & Record<string, unknown>) =>
  queryOptions({
    queryKey: ["curve", request],
    queryFn: async () => {
      const answer = await answered(api.POST("/api/solve/", { body: request }));
      // a spectrum is never too large to be answered at once
      return !("id" in answer) && answer.kind === "spectrum" ? answer : undefined;
    },
    retry: false,
    placeholderData: keepPreviousData,
  });

export const useSession = () => useQuery(sessionQuery);
export const useEditions = () => useQuery(editionsQuery);
export const useVocabulary = () => useQuery(vocabularyQuery);
export const useReviews = () => useQuery(reviewsQuery);
export const useReview = (id: string) => useQuery(reviewQuery(id));
export const useRecheck = (id: string, submission: number | undefined, enabled = true) =>
  useQuery({ ...recheckQuery(id, submission), enabled });
export const useAcross = (id: string) => useQuery(acrossQuery(id));
export const useFindings = (id: string) => useQuery(findingsQuery(id));
export const useReports = (id: string, enabled = true) => useQuery({ ...reportsQuery(id), enabled });

/** Take another person's session: nothing of the previous one stays in memory. */
export function takeSession(client: QueryClient, session: Session) {
  forgetDrafts();
  client.removeQueries({ predicate: (q) => q.queryKey[0] !== "session" });
  client.setQueryData(sessionQuery.queryKey, session);
}

/** Ask again for everything of a review that may have changed. */
export function useRefresh(id: string) {
  const client = useQueryClient();
  return () =>
    Promise.all(
      ["review", "recheck", "findings", "reports", "difference", "histories"].map((kind) =>
        client.invalidateQueries({ queryKey: [kind, id] }),
      ),
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
  const key = reviewQuery(id).queryKey;
  const cached = () => client.getQueryData(key);
  const mutationKey = ["change brief", id];
  // changes of one brief go one after the other, each on the state that the previous one it left
  const scope = { id: mutationKey.join(" ") };
  const basedOn = () => cached()?.brief_number ?? 0;
  // what the server has, while changes of it that are seen already are on their way
  const baseKey = ["kept brief", id];
  const base = () => client.getQueryData<{ document: Brief; number: number }>(baseKey);
  const settle = (state: BriefState) => {
    client.setQueryData(baseKey, { document: state.brief, number: state.brief_number });
    const waiting = client.isMutating({ mutationKey }) > 1;
    client.setQueryData(
      key,
      (before: Review | undefined) =>
        before && {
          ...before,
          brief: waiting ? before.brief : state.brief,
          brief_number: state.brief_number,
          can_undo: state.can_undo,
        },
    );
    client.setQueryData(recheckQuery(id, submission).queryKey, state.recheck);
    void client.invalidateQueries({ queryKey: acrossQuery(id).queryKey });
    // rechecks of other submissions rest on the brief as well
    void client.invalidateQueries({
      predicate: (q) => q.queryKey[0] === "recheck" && q.queryKey[1] === id && q.queryKey[2] !== submission,
    });
  };
  // where a change is refused, the state that is kept is fetched again
  const onError = () => {
    client.removeQueries({ queryKey: baseKey });
    return client.invalidateQueries({ queryKey: key });
  };
  const save = useMutation({
    mutationKey,
    scope,
    onError,
    mutationFn: async (edit: (brief: Brief) => void) =>
      applyAgainOnConflict(
        base() ?? { document: {} as Brief, number: basedOn() },
        edit,
        (brief, based_on) =>
          answered(
            api.PUT("/api/reviews/{review_id}/brief/", {
              ...recheckRequest(id, submission),
              body: { brief, based_on },
            }),
          ),
        async () => {
          const now = await answered(api.GET("/api/reviews/{review_id}/", ofReview(id)));
          return { document: now.brief, number: now.brief_number };
        },
      ),
    // what was changed is seen at once, and the next change starts from it
    onMutate: (edit) => {
      const now = cached();
      if (!now) return;
      if (client.isMutating({ mutationKey }) <= 1 || !base())
        client.setQueryData(baseKey, { document: now.brief, number: now.brief_number });
      const brief = structuredClone(now.brief);
      edit(brief);
      client.setQueryData(key, { ...now, brief });
    },
    onSuccess: settle,
  });
  const govern = useMutation({
    mutationKey,
    scope,
    onError,
    mutationFn: (edition: string) =>
      answered(
        api.POST("/api/reviews/{review_id}/brief/govern/", {
          ...recheckRequest(id, submission),
          body: { edition, based_on: basedOn() },
        }),
      ),
    onSuccess: settle,
  });
  const undo = useMutation({
    mutationKey,
    scope,
    onError,
    mutationFn: () =>
      answered(
        api.POST("/api/reviews/{review_id}/brief/undo/", {
          ...recheckRequest(id, submission),
          body: { based_on: basedOn() },
        }),
      ),
    onSuccess: settle,
  });
  return { save, govern, undo };
}
