import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { answered, api, type ModelState, type ReferenceModel, type Run } from "../shared/api/client";

const path = (id: string) => ({ params: { path: { review_id: id } } });

/** The review's own model and a way to change it: `change` gets a copy to write into. */
export function useModel(id: string) {
  const client = useQueryClient();
  const key = ["model", id];
  const state = useQuery({ queryKey: key, queryFn: () => answered(api.GET("/api/reviews/{review_id}/model/", path(id))) });
  const changed = async () => {
    // the answers to the model as it was stay in the store under their own question
    await Promise.all([client.invalidateQueries({ queryKey: ["run", id] }), client.invalidateQueries({ queryKey: ["recheck", id] })]);
  };
  const states = () => client.getQueryData<ModelState>(key);
  // saves of one model go one after the other, each on the state that the one before it left
  const save = useMutation({
    mutationKey: ["save", ...key], scope: { id: key.join(" ") },
    mutationFn: (model: ReferenceModel) => answered(api.PUT("/api/reviews/{review_id}/model/", { ...path(id), body: { model, based_on: states()?.number ?? 0 } })),
    // what was changed is seen at once; where it is refused, the state that is kept is fetched again
    onMutate: (model) => { client.setQueryData<ModelState>(key, (now) => now && { ...now, model }); },
    onSuccess: async (saved) => {
      const waiting = client.isMutating({ mutationKey: ["save", ...key] }) > 1;
      client.setQueryData<ModelState>(key, (now) => (waiting && now ? { ...saved, model: now.model } : saved));
      await changed();
    },
    onError: () => client.invalidateQueries({ queryKey: key }),
  });
  const undo = useMutation({
    mutationFn: () => answered(api.POST("/api/reviews/{review_id}/model/undo/", path(id))),
    onSuccess: async (saved) => { client.setQueryData(key, saved); await changed(); },
  });
  const model: ReferenceModel = state.data?.model ?? {};
  return {
    model, number: state.data?.number ?? 0, loading: state.isPending, error: state.error ?? save.error ?? undo.error,
    change: (edit: (model: ReferenceModel) => void) => {
      const next = structuredClone(states()?.model ?? {});
      edit(next);
      save.mutate(next);
    },
    undo: () => { undo.mutate(); }, canUndo: state.data?.can_undo ?? false, busy: save.isPending || undo.isPending,
  };
}

export type RunKind = "model" | "modal" | "response_X" | "response_Y" | "static_response" | "irregularity";
const open = (run: Run | undefined) => run?.status === "queued" || run?.status === "running";

/** The run that answers a question to the model as it stands; looked at again and again until it has its answer. */
export function useRun<Answer>(id: string, kind: RunKind, model: number, brief: number, enabled = true) {
  const client = useQueryClient();
  const key = ["run", id, kind, model, brief];
  const asked = useQuery({
    queryKey: key, enabled, staleTime: Infinity,
    queryFn: () => answered(api.POST("/api/reviews/{review_id}/runs/", { ...path(id), body: { kind } })),
  });
  const first = asked.data;
  const watched = useQuery({
    queryKey: ["watched", first?.id], enabled: open(first), refetchInterval: (q) => (open(q.state.data) || !q.state.data ? 400 : false),
    queryFn: () => answered(api.GET("/api/runs/{run_id}/", { params: { path: { run_id: first?.id ?? "" } } })),
  });
  const run = open(first) && watched.data ? watched.data : first;
  const finished = open(first) && watched.data && !open(watched.data) ? watched.data : undefined;
  useEffect(() => {
    if (!finished) return;
    client.setQueryData(["run", id, kind, model, brief], finished);
    // what waited for the answer can be said now
    void client.invalidateQueries({ queryKey: ["recheck", id] });
  }, [finished, client, id, kind, model, brief]);
  const cancel = useMutation({
    mutationFn: () => answered(api.POST("/api/runs/{run_id}/cancel/", { params: { path: { run_id: run?.id ?? "" } } })),
    onSuccess: (stopped) => { if (!open(stopped)) client.setQueryData(key, stopped); },
  });
  return {
    run, answer: run?.status === "done" ? (run.result as unknown as Answer) : undefined,
    error: asked.error, asking: asked.isPending && enabled, open: open(run),
    cancel: () => { cancel.mutate(); }, again: () => { void client.invalidateQueries({ queryKey: key }); },
  };
}
