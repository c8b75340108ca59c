import { Button } from "@mantine/core";
import type { TableRead } from "../../shared/api/client";
import { Problems } from "../../shared/Problems";
import { PreviewCells } from "./PreviewCells";
import { PreviewHead } from "./PreviewHead";
import { ProfileProposal } from "./ProfileProposal";
import { QuestionCells } from "./QuestionCells";
import { Questions } from "./Questions";
import { asked } from "./reading";
import { strings } from "./strings";
import { UnusedColumns } from "./UnusedColumns";
import { useTablePreview, type TableSource } from "./useTablePreview";

interface Props {
  source: TableSource;
  onClose: () => void;
  onAccepted: () => void;
  /** a cell to frame, from 0, on its sheet */
  framed?: { row: number; column: number } | undefined;
  /** whether the table is shown only */
  seen?: boolean;
}

/** A table as it is read, to be corrected by its columns and rows; problems are in their cells. */
export function TablePreview({ source, onClose, onAccepted, framed, seen = false }: Props) {
  const preview = useTablePreview(source, onClose, onAccepted);
  const { read, kinds, accept, cells } = preview;
  if (read.error)
    return (
      <div className="preview">
        <Problems
          error={read.error}
          title={
            source.exhibit === undefined
              ? strings.cannotBeReadNothingWas(source.name)
              : strings.isStoredUnchangedNoTable(source.name)
          }
        />
        <Button variant="default" onClick={onClose}>
          {strings.back}
        </Button>
      </div>
    );
  if (!read.data) return <p className="quiet">{strings.reading}</p>;
  const table: TableRead = read.data;
  const titled = (id: string) => kinds.find((k) => k.id === id)?.title ?? id;
  return (
    <section className="preview" aria-label={strings.table(source.name)}>
      {!seen && (
        <>
          <PreviewHead source={source} table={table} preview={preview} onClose={onClose} />
          <Problems error={accept.error} title={strings.notAcceptedNothingWasSaved} />
          {table.looks_like && table.looks_like !== table.kind && (
            <p className="looks-like">
              {strings.thisLooksLike(titled(table.looks_like))}
              <Button
                variant="subtle"
                size="compact-xs"
                onClick={() => {
                  preview.chooseKind(table.looks_like);
                }}
              >
                {strings.readItAsThat}
              </Button>
            </p>
          )}
          <ProfileProposal table={table} preview={preview} />
          <Questions
            key={asked(table.problems)[0]?.question.message ?? ""}
            problems={table.problems}
            onShow={(row) => {
              cells.current?.querySelector(`[data-row="${String(row)}"]`)?.scrollIntoView({ block: "center" });
            }}
            onAnswer={(choice) => {
              const kind = choice.sets["kind"];
              if (typeof kind === "string") preview.chooseKind(kind);
              else preview.give(choice.sets);
            }}
            onCase={(name) => {
              preview.give({ case: name });
            }}
            cells={(question, rows) => (
              <QuestionCells table={table} exhibit={source.exhibit} question={question} rows={rows} />
            )}
          />
        </>
      )}
      {!seen && <UnusedColumns table={table} preview={preview} />}
      <PreviewCells ref={cells} table={table} preview={preview} exhibit={source.exhibit} framed={framed} seen={seen} />
      {table.row_count > table.rows.length && (
        <p className="quiet">{strings.theFirstOfRowsAre(table.rows.length, table.row_count)}</p>
      )}
    </section>
  );
}
