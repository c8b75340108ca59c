import { Button, Checkbox, Select } from "@mantine/core";
import type { TableRead } from "../../shared/api/client";
import { counted } from "../../shared/numbers";
import { openParts } from "./reading";
import { strings } from "./strings";
import type { Preview, TableSource } from "./useTablePreview";

interface Props {
  source: TableSource;
  table: TableRead;
  preview: Preview;
  onClose: () => void;
}

/** Kind, sheet, order, number format and cases of a table, and the buttons that accept or close it. */
export function PreviewHead({ source, table, preview, onClose }: Props) {
  const now = table.reading;
  const parts = openParts(table.problems);
  const left = strings.stayOpen(parts.rows, parts.columns);
  const asksFor = (pattern: RegExp) => table.problems.some((p) => pattern.test(p.message));
  const cases = Object.entries(now.cases ?? {});
  const unclear = [
    ...new Set(
      table.problems
        .map((p) => /^the direction of case '(.+)' is not clear/.exec(p.message)?.[1])
        .filter((c) => c !== undefined),
    ),
  ];
  return (
    <div className="stage-head">
      <b>{source.name}</b>
      <Select
        aria-label={strings.whatKindOfTable}
        w={180}
        allowDeselect={false}
        value={table.kind}
        data={preview.kinds.map((k) => ({ value: k.id, label: k.title }))}
        onChange={(v) => {
          preview.chooseKind(v ?? "");
        }}
      />
      {source.sheet === undefined && table.sheets.length > 1 && (
        <Select
          aria-label={strings.sheet}
          w={160}
          allowDeselect={false}
          value={table.sheet}
          data={table.sheets}
          onChange={(v) => {
            preview.chooseSheet(v ?? "");
          }}
        />
      )}
      {table.kind === "stories" && (
        <Select
          aria-label={strings.orderOfTheStories}
          w={170}
          allowDeselect={false}
          placeholder={strings.whichIsTheLowest}
          value={asksFor(/^it is not clear which of the stories is the lowest/) ? null : now.order || "bottom_up"}
          data={[
            { value: "top_down", label: strings.topStoryFirst },
            { value: "bottom_up", label: strings.bottomStoryFirst },
          ]}
          onChange={(v) => {
            preview.give({ order: v ?? "" });
          }}
        />
      )}
      {(now.numbers || asksFor(/^it is not clear how the numbers are written/)) && (
        <Select
          aria-label={strings.howDecimalsAreWritten}
          w={170}
          placeholder={strings.howAreDecimalsWritten}
          value={now.numbers || null}
          data={[
            { value: "point", label: strings.asIn12345 },
            { value: "comma", label: strings.asIn123452 },
          ]}
          onChange={(v) => {
            preview.give({ numbers: v ?? "" });
          }}
        />
      )}
      {table.kind === "parameters" && (
        <Checkbox
          label={strings.valuesWithoutADirectionApply}
          checked={now.both ?? false}
          onChange={(e) => {
            preview.give({ both: e.currentTarget.checked });
          }}
        />
      )}
      {[...cases.map(([name, d]) => ({ name, d: d })), ...unclear.map((name) => ({ name, d: null }))].map(
        ({ name, d }) => (
          <label key={name} className="case">
            {strings.casePrefix}
            <b>{name}</b>
            {strings.is}
            <Select
              aria-label={strings.directionOfCase(name)}
              w={64}
              value={d}
              data={["X", "Y"]}
              onChange={(v) => {
                if (v) preview.give({ cases: { [name]: v as "X" } });
              }}
            />
          </label>
        ),
      )}
      <span className="end">
        {preview.canUndo && (
          <Button variant="subtle" color="gray" onClick={preview.undo} title="Ctrl+Z">
            {strings.undo}
          </Button>
        )}
        <Button variant="default" onClick={onClose}>
          {strings.close}
        </Button>
        <Button
          color="dark"
          disabled={!preview.ready}
          loading={preview.accept.isPending}
          onClick={() => {
            preview.accept.mutate();
          }}
          title={strings.ctrlEnter}
        >
          {strings.accept}
          {table.claims > 0 ? counted(table.claims, "value") : table.cases > 0 ? counted(table.cases, "case") : "it"}
          {preview.ready && left && strings.acceptTheRest(left)}
        </Button>
      </span>
    </div>
  );
}
