import { Button, Menu } from "@mantine/core";
import type { TableRead } from "../../shared/api/client";
import { strings } from "./strings";
import type { Preview } from "./useTablePreview";

/** Columns of numbers that are not used, each with the columns that it can be. */
export function UnusedColumns({ table, preview }: { table: TableRead; preview: Preview }) {
  if (table.unused.length === 0) return null;
  const columns = table.reading.columns ?? {};
  const free = table.columns.filter((c) => !(c.name in columns));
  return (
    <p className="unused-columns">
      <span className="quiet">{strings.columnsNotUsed}</span>
      {table.unused.map(({ column, heading }) => (
        <Menu key={column} position="bottom-start">
          <Menu.Target>
            <Button variant="default" size="compact-xs" disabled={free.length === 0}>
              {heading}
            </Button>
          </Menu.Target>
          <Menu.Dropdown>
            <Menu.Label>{strings.useItAs}</Menu.Label>
            {free.map((c) => (
              <Menu.Item
                key={c.name}
                onClick={() => {
                  preview.give({ columns: { ...columns, [c.name]: column } });
                }}
              >
                {c.title}
              </Menu.Item>
            ))}
          </Menu.Dropdown>
        </Menu>
      ))}
    </p>
  );
}
