import type { Schemas } from "../shared/api/client";

export type Profile = Schemas["Profile"];
export type TableProfile = Schemas["TableProfile"];
export type TableColumn = Schemas["Column"];

/** A table whose heading is read as another column, or as none; a column is read from one heading. */
export function readAs(table: TableProfile, index: number, column: string | null): TableProfile {
  const columns = Object.fromEntries(
    Object.entries(table.columns ?? {}).filter(([name, at]) => at !== index && name !== column),
  );
  const units = Object.fromEntries(Object.entries(table.units ?? {}).filter(([name]) => name in columns));
  return { ...table, columns: column ? { ...columns, [column]: index } : columns, units };
}

/** A table with another unit of a column; none where the table states it. */
export function withUnit(table: TableProfile, column: string, unit: string | null): TableProfile {
  const rest = Object.fromEntries(Object.entries(table.units ?? {}).filter(([name]) => name !== column));
  return { ...table, units: unit ? { ...rest, [column]: unit } : rest };
}

/** A profile as it is exported and imported. */
export const documentOf = ({ name, tables }: Pick<Profile, "name" | "tables">) => ({ name, tables });
