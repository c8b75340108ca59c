import { Button, FileInput, Textarea, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api, type Schemas } from "../shared/api/client";
import { Problems } from "../shared/Problems";
import { strings } from "./strings";

type Letterhead = Schemas["Letterhead"];
const KEY = ["letterhead"];

/** The office's letterhead, which stands on every report and letter. */
export function LetterheadForm() {
  const stored = useQuery({ queryKey: KEY, queryFn: () => answered(api.GET("/api/office/letterhead/")) });
  return stored.data ? <Fields key={stored.dataUpdatedAt} stored={stored.data} /> : null;
}

function Fields({ stored }: { stored: Letterhead }) {
  const client = useQueryClient();
  const [head, setHead] = useState({
    name: stored.name ?? "",
    lines: stored.lines ?? "",
    footer: stored.footer ?? "",
  });
  const [logo, setLogo] = useState<File | null>(null);
  const save = useMutation({
    mutationFn: async () =>
      answered(
        api.PUT("/api/office/letterhead/", { body: { ...head, ...(logo ? { logo: await base64(logo) } : {}) } }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: KEY }),
  });
  const set = (name: keyof typeof head) => (e: { currentTarget: { value: string } }) => {
    const { value } = e.currentTarget;
    setHead((h) => ({ ...h, [name]: value }));
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <TextInput label={strings.letterheadName} maxLength={120} value={head.name} onChange={set("name")} />
      <Textarea
        label={strings.letterheadLines}
        mt="xs"
        autosize
        minRows={2}
        maxLength={600}
        value={head.lines}
        onChange={set("lines")}
      />
      <TextInput
        label={strings.letterheadFooter}
        mt="xs"
        maxLength={160}
        value={head.footer}
        onChange={set("footer")}
      />
      <FileInput
        label={stored.has_logo ? strings.anotherLogo : strings.logo}
        mt="xs"
        accept="image/png,image/jpeg"
        value={logo}
        onChange={setLogo}
        clearable
      />
      <Problems error={save.error} title={strings.notSaved} />
      <Button type="submit" mt="sm" variant="default" loading={save.isPending}>
        {strings.saveLetterhead}
      </Button>
    </form>
  );
}

/** A file as base64. */
async function base64(file: File): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  return btoa(Array.from(bytes, (b) => String.fromCharCode(b)).join(""));
}
