import { Button, Select } from "@mantine/core";
import { useState, type ReactNode } from "react";
import { ValueInput } from "./ValueInput";
import { strings } from "./strings";
import css from "./RowsEditor.module.css";

export type Row = Record<string, string | number | boolean | null | undefined>;

export interface Column {
  name: string;
  label: ReactNode;
  /** the label for those who cannot see the heading */
  spoken: string;
  width: number;
  unit?: string;
  placeholder?: string;
  required?: boolean;
  /** a choice of these; numbers otherwise */
  options?: { value: string; label: string }[];
  /** yes, no, or left open */
  tested?: boolean;
}

interface Props {
  /** What a row is, for names and for the button that adds one */
  what: string;
  rows: Row[];
  columns: Column[];
  fresh: Row;
  most?: number;
  onChange: (rows: Row[]) => void;
}

const lacks = (row: Row, columns: Column[]) =>
  columns.filter((c) => c.required && (row[c.name] === null || row[c.name] === undefined || row[c.name] === ""));

/** A short table that is typed in; a row that still lacks something is kept here and not saved before it is whole. */
export function RowsEditor({ what, rows, columns, fresh, most = 300, onChange }: Props) {
  const [draft, setDraft] = useState<Row | null>(null);
  const shown = draft ? [...rows, draft] : rows;
  const edit = (index: number, name: string, value: Row[string]) => {
    const row = { ...shown[index], [name]: value };
    const whole = lacks(row, columns).length === 0;
    if (index === rows.length) {
      if (whole) {
        setDraft(null);
        onChange([...rows, row]);
      } else setDraft(row);
    } else if (whole) onChange(rows.map((r, i) => (i === index ? row : r)));
  };
  const add = () => {
    if (lacks(fresh, columns).length === 0) onChange([...rows, fresh]);
    else setDraft(fresh);
  };
  const missing = draft ? lacks(draft, columns) : [];
  return (
    <div className="rows-editor">
      {shown.length > 0 && (
        <table className="plain">
          <thead>
            <tr>
              {columns.map((c) => (
                <th key={c.name}>{c.label}</th>
              ))}
              <th />
            </tr>
          </thead>
          <tbody>
            {shown.map((row, i) => {
              const named = (c: Column) => `${c.spoken}, ${what} ${String(i + 1)}`;
              return (
                <tr key={i}>
                  {columns.map((c) => (
                    <td key={c.name}>
                      {c.options ? (
                        <Select
                          aria-label={named(c)}
                          w={c.width}
                          searchable={c.options.length > 12}
                          allowDeselect={!c.required}
                          placeholder={c.placeholder ?? ""}
                          value={(row[c.name] as string | null | undefined) ?? null}
                          data={c.options}
                          comboboxProps={{
                            width: c.options.length > 12 ? 430 : "max-content",
                            position: "bottom-start",
                          }}
                          onChange={(v) => {
                            edit(i, c.name, v);
                          }}
                        />
                      ) : c.tested ? (
                        <Select
                          aria-label={named(c)}
                          w={c.width}
                          allowDeselect={false}
                          value={row[c.name] === true ? "yes" : row[c.name] === false ? "no" : "open"}
                          data={[
                            { value: "yes", label: strings.yes },
                            { value: "no", label: strings.no },
                            { value: "open", label: strings.notTested },
                          ]}
                          onChange={(v) => {
                            edit(i, c.name, v === "open" ? null : v === "yes");
                          }}
                        />
                      ) : (
                        <ValueInput
                          aria-label={named(c)}
                          w={c.width}
                          {...(c.unit ? { unit: c.unit } : {})}
                          placeholder={c.placeholder ?? (c.required ? strings.required : strings.notEntered)}
                          value={typeof row[c.name] === "number" ? (row[c.name] as number) : null}
                          onCommit={(v) => {
                            edit(i, c.name, v);
                          }}
                        />
                      )}
                    </td>
                  ))}
                  <td>
                    <Button
                      variant="subtle"
                      color="gray"
                      size="compact-sm"
                      aria-label={strings.removeNumbered(what, i + 1)}
                      onClick={() => {
                        if (i === rows.length) setDraft(null);
                        else onChange(rows.filter((_, j) => j !== i));
                      }}
                    >
                      {strings.remove}
                    </Button>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      {missing.length > 0 && (
        <p className={`off ${css["smallLine"] ?? ""}`}>
          {strings.savedOnceItHas(missing.map((c) => c.spoken).join(", "))}
        </p>
      )}
      {shown.length < most && !draft && (
        <Button variant="subtle" size="compact-sm" onClick={add}>
          {rows.length > 0 ? strings.another : /^[aeiou]/.test(what) ? strings.addAn : strings.addA} {what}
        </Button>
      )}
    </div>
  );
}
