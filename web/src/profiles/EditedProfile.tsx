import { Button, Select, TextInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api } from "../shared/api/client";
import { useVocabulary } from "../shared/api/queries";
import { Problems } from "../shared/Problems";
import { documentOf, readAs, withUnit, type Profile, type TableColumn, type TableProfile } from "./profile";
import { strings } from "./strings";
import css from "./ProfilesPage.module.css";

interface Props {
  profile: Profile;
  onChanged: () => Promise<unknown>;
  onDeleted: () => Promise<unknown>;
}

/** A profile: of each table what its headings are read as, to be changed, exported or deleted. */
export function EditedProfile({ profile, onChanged, onDeleted }: Props) {
  const [name, setName] = useState(profile.name);
  const [tables, setTables] = useState(profile.tables);
  const kinds = useVocabulary().data?.tables ?? [];
  const params = { path: { profile_id: profile.id } };
  const changed = name !== profile.name || tables !== profile.tables;
  const save = useMutation({
    mutationFn: () =>
      answered(
        api.PUT("/api/profiles/{profile_id}/", {
          params: { ...params, header: { "If-Match": `"${String(profile.revision ?? 1)}"` } },
          body: { name, tables },
        }),
      ),
    onSuccess: onChanged,
  });
  const remove = useMutation({
    mutationFn: () => answered(api.DELETE("/api/profiles/{profile_id}/", { params })),
    onSuccess: onDeleted,
  });
  const set = (index: number, table: TableProfile | null) => {
    setTables(tables.flatMap((t, i) => (i !== index ? [t] : table ? [table] : [])));
  };
  return (
    <section className={css["profile"]} aria-label={profile.name}>
      <div className={css["head"]}>
        <TextInput
          label={strings.nameOfTheProfile}
          value={name}
          maxLength={80}
          onChange={(e) => {
            setName(e.currentTarget.value);
          }}
        />
        <Button
          color="dark"
          disabled={!changed || !name.trim()}
          loading={save.isPending}
          onClick={() => {
            save.mutate();
          }}
        >
          {strings.save}
        </Button>
        <Button
          variant="default"
          component="a"
          download={`${profile.name}.json`}
          href={`data:application/json,${encodeURIComponent(JSON.stringify(documentOf(profile), null, 2))}`}
        >
          {strings.exportIt}
        </Button>
        {profile.own && (
          <Button
            variant="subtle"
            color="gray"
            aria-label={strings.deleteTheProfile(profile.name)}
            onClick={() => {
              remove.mutate();
            }}
          >
            {strings.deleteIt}
          </Button>
        )}
      </div>
      <Problems error={save.error ?? remove.error} title={strings.notSaved} />
      {tables.map((table, i) => (
        <ProfileTable
          key={table.kind + table.heading.join("\t")}
          table={table}
          title={kinds.find((k) => k.id === table.kind)?.title ?? table.kind}
          columns={profile.columns[table.kind] ?? []}
          onChange={(next) => {
            set(i, next);
          }}
        />
      ))}
    </section>
  );
}

interface TableProps {
  table: TableProfile;
  title: string;
  columns: TableColumn[];
  onChange: (table: TableProfile | null) => void;
}

function ProfileTable({ table, title, columns, onChange }: TableProps) {
  const by = new Map(Object.entries(table.columns ?? {}).map(([name, index]) => [index, name]));
  const used = (name: string) => columns.find((c) => c.name === name);
  return (
    <div className={css["table"]}>
      <h3 className="part">
        {title}{" "}
        <button
          type="button"
          className="linklike"
          onClick={() => {
            onChange(null);
          }}
        >
          {strings.removeTable}
        </button>
      </h3>
      <table className="plain">
        <thead>
          <tr>
            <th>{strings.heading}</th>
            <th>{strings.readAs}</th>
            <th>{strings.unit}</th>
          </tr>
        </thead>
        <tbody>
          {table.heading.map((heading, i) => {
            const column = used(by.get(i) ?? "");
            return heading || column ? (
              <tr key={i}>
                <td>{heading}</td>
                <td>
                  <Select
                    aria-label={strings.headingReadAs(heading)}
                    size="xs"
                    clearable
                    placeholder={strings.notUsed}
                    value={by.get(i) ?? null}
                    data={columns.map((c) => ({ value: c.name, label: c.title }))}
                    onChange={(v) => {
                      onChange(readAs(table, i, v));
                    }}
                  />
                </td>
                <td>
                  {column && column.units.length > 0 && (
                    <Select
                      aria-label={strings.unitOf(column.title)}
                      size="xs"
                      clearable
                      placeholder={strings.noUnit}
                      value={table.units?.[column.name] ?? null}
                      data={column.units}
                      onChange={(v) => {
                        onChange(withUnit(table, column.name, v));
                      }}
                    />
                  )}
                </td>
              </tr>
            ) : null;
          })}
        </tbody>
      </table>
      <div className={css["formats"]}>
        {used("story") && (
          <Select
            label={strings.order}
            size="xs"
            value={table.order ?? ""}
            data={[
              { value: "", label: strings.asStated },
              { value: "top_down", label: strings.topFirst },
              { value: "bottom_up", label: strings.bottomFirst },
            ]}
            onChange={(v) => {
              onChange({ ...table, order: (v ?? "") as NonNullable<TableProfile["order"]> });
            }}
          />
        )}
        <Select
          label={strings.decimals}
          size="xs"
          value={table.numbers ?? ""}
          data={[
            { value: "", label: strings.asStated },
            { value: "point", label: strings.point },
            { value: "comma", label: strings.comma },
          ]}
          onChange={(v) => {
            onChange({ ...table, numbers: (v ?? "") as NonNullable<TableProfile["numbers"]> });
          }}
        />
      </div>
      {Object.keys(table.cases ?? {}).length > 0 && (
        <p className="quiet">
          {strings.directions}
          {Object.entries(table.cases ?? {})
            .map(([name, direction]) => `${name} ${direction}`)
            .join(", ")}
        </p>
      )}
      {(table.confirmed ?? []).length > 0 && (
        <p className="quiet">
          {strings.settled}
          {(table.confirmed ?? []).join(", ")}
        </p>
      )}
    </div>
  );
}
