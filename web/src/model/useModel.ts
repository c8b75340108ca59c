import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { answered, api, type ReferenceModel } from "../shared/api/client";
import { applyAgainOnConflict } from "../shared/api/conflicts";
import { isOpen, modelQuery, runQuery, watchedRunQuery, type RunKind } from "../shared/api/queries";

interface Kept {
  document: ReferenceModel;
  number: number;
}

const ofReview = (id: string) => ({ params: { path: { review_id: id } } });

/** The review's reference model and a way to change it: `change` gets a copy to write into. */
export function useModel(id: string) {
  const client = useQueryClient();
  const key = modelQuery(id).queryKey;
  const state = useQuery(modelQuery(id));
  const changed = async () => {
    // the answers to the model as it was stay in the store under their own question
    await Promise.all([
      client.invalidateQueries({ queryKey: ["run", id] }),
      client.invalidateQueries({ queryKey: ["recheck", id] }),
    ]);
  };
  // what the server has, while changes of it that are seen already are on their way
  const savedKey = ["kept model", id];
  const states = () => client.getQueryData(key);
  // saves of one model go one after the other, each on the state that the previous one it left
  const save = useMutation({
    mutationKey: ["save", ...key],
    scope: { id: key.join(" ") },
    mutationFn: async (edit: (model: ReferenceModel) => void) =>
      applyAgainOnConflict(
        client.getQueryData<Kept>(savedKey) ?? { document: {}, number: states()?.number ?? 0 },
        edit,
        (model, based_on) =>
          answered(api.PUT("/api/reviews/{review_id}/model/", { ...ofReview(id), body: { model, based_on } })),
        async () => {
          const now = await answered(api.GET("/api/reviews/{review_id}/model/", ofReview(id)));
          return { document: now.model, number: now.number };
        },
      ),
    // what was changed is seen at once; where it is refused, the state that is kept is fetched again
    onMutate: (edit) => {
      const now = states();
      if (!now) return;
      if (client.isMutating({ mutationKey: ["save", ...key] }) <= 1 || !client.getQueryData(savedKey))
        client.setQueryData(savedKey, { document: now.model, number: now.number });
      const model = structuredClone(now.model);
      edit(model);
      client.setQueryData(key, { ...now, model });
    },
    onSuccess: async (saved) => {
      client.setQueryData(savedKey, { document: saved.model, number: saved.number });
      const waiting = client.isMutating({ mutationKey: ["save", ...key] }) > 1;
      client.setQueryData(key, (now) => (waiting && now ? { ...saved, model: now.model } : saved));
      await changed();
    },
    onError: () => {
      client.removeQueries({ queryKey: savedKey });
      return client.invalidateQueries({ queryKey: key });
    },
  });
  const undo = useMutation({
    mutationFn: () =>
      answered(
        api.POST("/api/reviews/{review_id}/model/undo/", {
          ...ofReview(id),
          body: { based_on: states()?.number ?? 0 },
        }),
      ),
    onSuccess: async (saved) => {
      client.setQueryData(key, saved);
      await changed();
    },
  });
  const model: ReferenceModel = state.data?.model ?? {};
  return {
    model,
    number: state.data?.number ?? 0,
    loading: state.isPending,
    error: state.error ?? save.error ?? undo.error,
    change: (edit: (model: ReferenceModel) => void) => {
      save.mutate(edit);
    },
    undo: () => {
      undo.mutate();
    },
    canUndo: state.data?.can_undo ?? false,
    busy: save.isPending || undo.isPending,
  };
}

/* the kind of a run decides what it answers, which the API document does not say */
/* eslint-disable @typescript-eslint/no-unnecessary-type-parameters */
/** The run that answers a request to the model in its present state. */
export function useRun<Answer>(id: string, kind: RunKind, model: number, brief: number, enabled = true) {
  const client = useQueryClient();
  const key = runQuery(id, kind, model, brief).queryKey;
  const answerQuery = useQuery({ ...runQuery(id, kind, model, brief), enabled });
  const first = answerQuery.data;
  const watched = useQuery({ ...watchedRunQuery(first?.id ?? ""), enabled: isOpen(first) });
  const run = isOpen(first) && watched.data ? watched.data : first;
  const finished = isOpen(first) && watched.data && !isOpen(watched.data) ? watched.data : undefined;
  useEffect(() => {
    if (!finished) return;
    client.setQueryData(runQuery(id, kind, model, brief).queryKey, finished);
    // what waited for the answer can be said now
    void client.invalidateQueries({ queryKey: ["recheck", id] });
  }, [finished, client, id, kind, model, brief]);
  const cancel = useMutation({
    mutationFn: () => answered(api.POST("/api/runs/{run_id}/cancel/", { params: { path: { run_id: run?.id ?? "" } } })),
    onSuccess: (stopped) => {
      if (!isOpen(stopped)) client.setQueryData(key, stopped);
    },
  });
  return {
    run,
    answer: run?.status === "done" ? (run.result as unknown as Answer) : undefined,
    error: answerQuery.error,
    asking: answerQuery.isPending && enabled,
    open: isOpen(run),
    cancel: () => {
      cancel.mutate();
    },
    again: () => {
      void client.invalidateQueries({ queryKey: key });
    },
  };
}
