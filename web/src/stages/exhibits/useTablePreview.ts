import { useHotkeys } from "@mantine/hooks";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { answered, api, type Reading, type ReadTable } from "../../shared/api/client";
import { tableQuery, useVocabulary } from "../../shared/api/queries";
import { withAnswer } from "./reading";

export interface TableSource {
  review: string;
  name: string;
  text?: string;
  exhibit?: number;
  /** the table of the exhibit, where it is chosen already */
  sheet?: string;
  /** the table as it was accepted before, to be read with other answers */
  replaces?: number;
  reading?: Reading;
  kind?: string;
}

/** A table as it is read with the answers so far, and what changes them. */
export function useTablePreview(source: TableSource, onClose: () => void, onAccepted: () => void) {
  const [sheet, setSheet] = useState(source.sheet ?? "");
  const [kind, setKind] = useState(source.kind ?? "");
  const [reading, setReadingTo] = useState<Reading | null>(source.reading ?? null);
  const [before, setBefore] = useState<(Reading | null)[]>([]);
  const cells = useRef<HTMLDivElement>(null);
  const setReading = (next: Reading | null) => {
    setBefore((b) => [...b, reading]);
    setReadingTo(next);
  };
  const undo = () => {
    if (before.length === 0) return;
    setReadingTo(before[before.length - 1] ?? null);
    setBefore(before.slice(0, -1));
  };
  const path = { params: { path: { review_id: source.review } } };
  const body: ReadTable = {
    ...(source.exhibit === undefined ? { name: source.name } : { exhibit: source.exhibit }),
    ...(source.text !== undefined && { text: source.text }),
    ...(sheet && { sheet }),
    ...(kind && { kind }),
    reading,
  };
  const read = useQuery(tableQuery(source.review, body));
  const kinds = useVocabulary().data?.tables ?? [];
  const accept = useMutation({
    mutationFn: () =>
      answered(
        api.POST("/api/reviews/{review_id}/tables/", {
          ...path,
          body: {
            ...body,
            kind: read.data?.kind ?? kind,
            // the button says what stays open
            partly: true,
            ...(source.replaces !== undefined && { replaces: source.replaces }),
          },
        }),
      ),
    onSuccess: onAccepted,
  });
  const ready =
    read.data !== undefined && !read.data.problems.some((p) => p.holds_up) && read.data.claims + read.data.cases > 0;
  const there = read.data !== undefined;
  useEffect(() => {
    if (there) cells.current?.querySelector(".framed")?.scrollIntoView({ block: "center" });
  }, [there]);
  useHotkeys(
    [
      [
        "mod+Enter",
        () => {
          if (ready) accept.mutate();
        },
      ],
      ["mod+Z", undo],
      ["Escape", onClose],
    ],
    [],
  );

  return {
    read,
    reading,
    kinds,
    cells,
    accept,
    ready,
    undo,
    canUndo: before.length > 0,
    setReading,
    give: (sets: Partial<Reading>) => {
      setReading(withAnswer(reading, sets));
    },
    readAs: (to: string, answers: Reading) => {
      setKind(to);
      setReading(answers);
    },
    chooseKind: (to: string) => {
      setReading(null);
      setKind(to);
    },
    chooseSheet: (to: string) => {
      setReading(null);
      setSheet(to);
    },
  };
}

export type Preview = ReturnType<typeof useTablePreview>;
