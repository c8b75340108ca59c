import { Button, FileButton, Select, Textarea, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { answered, api, type Schemas } from "../shared/api/client";
import { useVocabulary } from "../shared/api/queries";
import { Appearance } from "../shared/Appearance";
import { day } from "../shared/dates";
import { Problems } from "../shared/Problems";
import { PLACEHOLDERS, strings } from "./strings";
import css from "./LibraryPage.module.css";

type Remark = Schemas["Remark"];
const KEY = ["library"];
const NEW = { id: 0, code: "", title: "", text: "" };

/** The office's texts for findings, by code of the catalogue. */
export default function LibraryPage() {
  const client = useQueryClient();
  const remarks = useQuery({ queryKey: KEY, queryFn: () => answered(api.GET("/api/remarks/")) });
  const [opened, open] = useState<number | null>(null);
  const [said, say] = useState("");
  const refresh = () => client.invalidateQueries({ queryKey: KEY });
  const bring = useMutation({
    mutationFn: async (file: File) => {
      let document: Schemas["LibraryRequest"];
      try {
        document = JSON.parse(await file.text()) as Schemas["LibraryRequest"];
      } catch {
        throw new Error(strings.isNoLibrary(file.name));
      }
      return answered(api.POST("/api/remarks/library/", { body: document }));
    },
    onSuccess: async ({ added, known }) => {
      say(strings.added(added, known));
      await refresh();
    },
  });
  const chosen = opened === 0 ? NEW : remarks.data?.find((r) => r.id === opened);
  return (
    <main className="reviews">
      <div className="reviews-head">
        <h1>{strings.library}</h1>
        <Link to="/">{strings.reviews}</Link>
        <Appearance />
        <FileButton
          accept=".json"
          onChange={(file) => {
            if (file) bring.mutate(file);
          }}
        >
          {(props) => (
            <Button variant="default" loading={bring.isPending} {...props}>
              {strings.importIt}
            </Button>
          )}
        </FileButton>
        <Button variant="default" component="a" href="/api/remarks/library/" download>
          {strings.exportIt}
        </Button>
        <Button
          color="dark"
          onClick={() => {
            open(0);
          }}
        >
          {strings.newRemark}
        </Button>
      </div>
      <p className="quiet">{strings.whatItIs}</p>
      <Problems
        error={remarks.error ?? bring.error}
        title={bring.error ? strings.notImported : strings.couldNotBeLoaded}
      />
      {said && <p role="status">{said}</p>}
      {remarks.data?.length === 0 && opened === null && (
        <div className="empty">
          <p>{strings.noneYet}</p>
        </div>
      )}
      <div className={css["panes"]}>
        <table className="plain">
          <tbody>
            {remarks.data?.map((r) => (
              <tr key={r.id} aria-current={r.id === opened}>
                <td className="quiet">{r.code}</td>
                <td>
                  <button
                    type="button"
                    className="linklike"
                    onClick={() => {
                      open(r.id);
                    }}
                  >
                    {r.title}
                  </button>
                </td>
                <td className="quiet">{strings.by(r.author, day(r.changed_at))}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {chosen && (
          <Edited
            key={`${String(chosen.id)} ${String("revision" in chosen ? chosen.revision : 0)}`}
            remark={chosen}
            onDone={async (id) => {
              open(id);
              await refresh();
            }}
          />
        )}
      </div>
    </main>
  );
}

interface EditedProps {
  remark: Pick<Remark, "id" | "title" | "text"> & Partial<Remark>;
  onDone: (id: number | null) => unknown;
}

function Edited({ remark, onDone }: EditedProps) {
  const vocabulary = useVocabulary();
  const [fields, setFields] = useState({ code: remark.code ?? "", title: remark.title, text: remark.text });
  const params = { path: { remark_id: remark.id }, header: { "If-Match": `"${String(remark.revision ?? 0)}"` } };
  const save = useMutation({
    mutationFn: () =>
      answered(
        remark.id === 0
          ? api.POST("/api/remarks/", { body: fields })
          : api.PATCH("/api/remarks/{remark_id}/", { params, body: fields }),
      ),
    onSuccess: (saved) => onDone(saved.id),
  });
  const remove = useMutation({
    mutationFn: () => answered(api.DELETE("/api/remarks/{remark_id}/", { params: { path: params.path } })),
    onSuccess: () => onDone(null),
  });
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <Select
        label={strings.code}
        placeholder={strings.anyCode}
        searchable
        clearable
        value={fields.code || null}
        data={(vocabulary.data?.catalogue ?? []).map((t) => ({ value: t.code, label: `${t.code} ${t.title}` }))}
        onChange={(code) => {
          setFields((f) => ({ ...f, code: code ?? "" }));
        }}
      />
      <TextInput
        label={strings.title}
        mt="xs"
        required
        maxLength={200}
        value={fields.title}
        onChange={(e) => {
          const { value } = e.currentTarget;
          setFields((f) => ({ ...f, title: value }));
        }}
      />
      <Textarea
        label={strings.text}
        mt="xs"
        required
        autosize
        minRows={5}
        maxLength={5000}
        value={fields.text}
        onChange={(e) => {
          const { value } = e.currentTarget;
          setFields((f) => ({ ...f, text: value }));
        }}
      />
      <p className="quiet">
        {strings.placeholders}
        {PLACEHOLDERS.map((name) => `{${name}}`).join(" ")}
      </p>
      <Problems error={save.error ?? remove.error} title={strings.notSaved} />
      <div className="bench-file">
        <Button type="submit" color="dark" loading={save.isPending}>
          {strings.save}
        </Button>
        {remark.id !== 0 && (
          <Button
            variant="subtle"
            color="gray"
            onClick={() => {
              remove.mutate();
            }}
          >
            {strings.remove}
          </Button>
        )}
      </div>
    </form>
  );
}
