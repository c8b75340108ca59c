import { Button } from "@mantine/core";
import { Link } from "react-router";
import type { TableRead } from "../../shared/api/client";
import { strings } from "./strings";
import type { Preview } from "./useTablePreview";

/** Answers of a profile for tables with these headings: a proposal, used at one click. */
export function ProfileProposal({ table, preview }: { table: TableRead; preview: Preview }) {
  const proposal = table.profile;
  if (!proposal) return null;
  return (
    <p className="looks-like">
      {strings.tablesLikeThis(proposal.name)}
      {answersOf(table).join(", ")}{" "}
      <Button
        size="compact-xs"
        variant="default"
        onClick={() => {
          preview.readAs(proposal.kind, proposal.reading);
        }}
      >
        {strings.useTheseAnswers}
      </Button>{" "}
      <Link to={`/profiles?profile=${String(proposal.id)}`}>{strings.seeTheProfile}</Link>
    </p>
  );
}

/** What the proposal says that the table itself does not. */
export function answersOf({ profile, reading, columns }: Pick<TableRead, "profile" | "reading" | "columns">): string[] {
  if (!profile) return [];
  const title = (name: string) => columns.find((c) => c.name === name)?.title ?? name;
  const { units = {}, cases = {}, order, numbers } = profile.reading;
  return [
    ...Object.entries(units)
      .filter(([name, unit]) => unit !== "-" && reading.units?.[name] !== unit)
      .map(([name, unit]) => strings.unitIs(title(name), unit)),
    ...Object.entries(cases)
      .filter(([name]) => !reading.cases?.[name])
      .map(([name, direction]) => strings.caseIs(name, direction)),
    ...(order && !reading.order ? [order === "top_down" ? strings.topStoryFirst : strings.bottomStoryFirst] : []),
    ...(numbers && !reading.numbers ? [numbers === "point" ? strings.asIn12345 : strings.asIn123452] : []),
  ];
}
