import { Button, FileButton, Select, Textarea } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api, type Frame, type FrameTableRead } from "../../shared/api/client";
import { useVocabulary } from "../../shared/api/queries";
import { counted } from "../../shared/numbers";
import { Problems } from "../../shared/Problems";
import { strings } from "./strings";
import css from "./FrameTables.module.css";

interface Props {
  reviewId: string;
  frame: Frame | null;
  onTake: (frame: Frame) => void;
}

/** Tables that a frame can do without, and what replaces them. */
const OPTIONAL: Partial<Record<string, string>> = {
  floors: strings.noneNoRigidFloors,
  masses: strings.noneMassFromFloorsOr,
};
type Row = Record<string, unknown>;
interface Source {
  text?: string;
  name?: string;
  content?: string;
  sheet?: string;
  kind?: string;
  columns?: Record<string, number>;
  units?: Record<string, string>;
}

/** A frame from pasted or uploaded tables, one after the other; columns are recognised, units requested. */
export function FrameTables({ reviewId, frame, onTake }: Props) {
  const [tables, setTables] = useState<Record<string, Row[]>>({});
  const [source, setSource] = useState<Source | null>(null);
  const [pasted, setPasted] = useState("");
  const [read, setRead] = useState<FrameTableRead | null>(null);
  const where = { params: { path: { review_id: reviewId } } };
  const look = useMutation({
    mutationFn: (s: Source) => answered(api.POST("/api/reviews/{review_id}/model/table/", { ...where, body: s })),
    onSuccess: (found, s) => {
      setRead(found);
      setSource(s);
    },
  });
  const build = useMutation({
    mutationFn: () => answered(api.POST("/api/reviews/{review_id}/model/frame/", { ...where, body: { tables } })),
    onSuccess: (made) => {
      onTake(made.frame);
    },
  });
  const again = (to: Partial<Source>) => {
    if (source) look.mutate({ ...source, ...to });
  };
  const upload = async (file: File | null) => {
    if (!file) return;
    const bytes = new Uint8Array(await file.arrayBuffer());
    let text = "";
    for (let i = 0; i < bytes.length; i += 0x8000) text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
    look.mutate({ name: file.name, content: btoa(text) });
  };
  const kinds = useVocabulary().data?.model_tables ?? [];
  const needed = kinds.map((k) => k.id).filter((k) => !OPTIONAL[k]);
  const missing = needed.filter((k) => !tables[k]?.length);
  const at = (row: number, column: number) => read?.problems.find((p) => p.row === row && p.column === column);
  const columnOf = (index: number) => Object.entries(read?.columns ?? {}).find(([, i]) => i === index)?.[0];
  return (
    <section aria-label={strings.pasteTables} className="frame-tables">
      <div>
        <h3 className="part">{strings.tablesSoFar}</h3>
        <ul>
          {kinds.map(({ id: k }) => (
            <li key={k}>
              <span className={css["fill"]}>{k}</span>
              {tables[k] ? (
                <>
                  <b>{tables[k].length}</b>
                  <button
                    type="button"
                    className="linklike"
                    aria-label={strings.leaveOut(k)}
                    onClick={() => {
                      setTables(Object.fromEntries(Object.entries(tables).filter(([name]) => name !== k)));
                    }}
                  >
                    {strings.exclude}
                  </button>
                </>
              ) : (
                <span className="quiet">{OPTIONAL[k] ?? strings.notYet}</span>
              )}
            </li>
          ))}
        </ul>
        <Button
          mt={10}
          disabled={missing.length > 0}
          loading={build.isPending}
          onClick={() => {
            build.mutate();
          }}
        >
          {frame ? strings.useThemInsteadOfThe : strings.useThisFrame}
        </Button>
        {missing.length > 0 && (
          <p className={`quiet ${css["small"] ?? ""}`}>{strings.stillNeeded(missing.join(", "))}</p>
        )}
        <Problems error={build.error} title={strings.noFrameCanBeBuilt} />
      </div>
      <div>
        <div className={css["row"]}>
          <Textarea
            label={strings.pasteATableWithIts}
            style={{ flex: 1 }}
            minRows={3}
            maxRows={6}
            autosize
            value={pasted}
            placeholder={strings.nodeXMYM}
            onChange={(e) => {
              setPasted(e.currentTarget.value);
            }}
            onPaste={(e) => {
              const text = e.clipboardData.getData("text/plain");
              if (text.includes("\n")) {
                e.preventDefault();
                setPasted(text);
                look.mutate({ text });
              }
            }}
          />
          <Button
            variant="default"
            disabled={!pasted.trim()}
            onClick={() => {
              look.mutate({ text: pasted });
            }}
          >
            {strings.readIt}
          </Button>
          <FileButton
            accept=".csv,.txt,.tsv,.xlsx"
            onChange={(f) => {
              void upload(f);
            }}
          >
            {(p) => (
              <Button variant="default" {...p}>
                {strings.selectAFile}
              </Button>
            )}
          </FileButton>
        </div>
        <Problems error={look.error} title={strings.thisCannotBeReadAs} />
        {read && (
          <div className={css["below"]}>
            <div className={css["wrapRow"]}>
              <Select
                label={strings.readAs}
                w={130}
                allowDeselect={false}
                value={read.kind}
                data={kinds.map((k) => k.id)}
                onChange={(v) => {
                  again({ kind: v ?? "" });
                }}
              />
              {read.sheets.length > 1 && (
                <Select
                  label={strings.sheet}
                  w={150}
                  allowDeselect={false}
                  value={read.sheet}
                  data={read.sheets}
                  onChange={(v) => {
                    again({ sheet: v ?? "" });
                  }}
                />
              )}
              {read.known
                .filter((c) => c.units.length > 1 && c.name in read.columns)
                .map((c) => (
                  <Select
                    key={c.name}
                    label={c.title}
                    w={108}
                    placeholder={strings.unit}
                    value={read.units[c.name] ?? null}
                    data={c.units}
                    error={read.units[c.name] ? undefined : true}
                    onChange={(v) => {
                      if (v) again({ kind: read.kind, columns: read.columns, units: { ...read.units, [c.name]: v } });
                    }}
                  />
                ))}
            </div>
            {read.problems.length > 0 && (
              <div className="problem" role="alert">
                {read.problems.slice(0, 8).map((p, i) => (
                  <p key={i}>
                    {p.row === null ? "" : strings.row(p.row + 1)}
                    {p.message.charAt(0).toUpperCase() + p.message.slice(1)}. <span className="quiet">{p.remedy}</span>
                  </p>
                ))}
                {read.problems.length > 8 && (
                  <p>
                    {strings.and}
                    {read.problems.length - 8}
                    {strings.more}
                  </p>
                )}
              </div>
            )}
            <div className={`cells ${css["below2"] ?? ""}`}>
              <table className="plain">
                <thead>
                  <tr>
                    {(read.cells[0] ?? []).map((_, c) => (
                      <th key={c}>
                        <Select
                          aria-label={strings.meaningOfColumn(c + 1)}
                          w={150}
                          placeholder={strings.notUsed}
                          clearable
                          value={columnOf(c) ?? null}
                          data={read.known.map((k) => ({ value: k.name, label: k.title }))}
                          onChange={(v) => {
                            const rest = Object.fromEntries(
                              Object.entries(read.columns).filter(([name, i]) => i !== c && name !== v),
                            );
                            again({ kind: read.kind, units: read.units, columns: v ? { ...rest, [v]: c } : rest });
                          }}
                        />
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {read.cells.map((row, r) => (
                    <tr key={r}>
                      {row.map((cell, c) => (
                        <td
                          key={c}
                          className={at(r, c) ? "bad" : r === read.header ? "quiet" : ""}
                          title={at(r, c)?.message}
                        >
                          {cell}
                        </td>
                      ))}
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
            <Button
              mt={8}
              disabled={read.problems.length > 0}
              onClick={() => {
                setTables({ ...tables, [read.kind]: read.rows });
                setRead(null);
                setSource(null);
                setPasted("");
              }}
            >
              {strings.useOf(counted(read.rows.length, "row"), read.kind)}
            </Button>
          </div>
        )}
      </div>
    </section>
  );
}
