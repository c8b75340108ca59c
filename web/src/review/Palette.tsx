import { Spotlight } from "@mantine/spotlight";
import { verdictWords } from "../shared/Mark";
import type { SheetRow } from "../sheet/layout";
import { KEYS } from "./keys";
import { strings } from "./strings";

interface Props {
  rows: SheetRow[];
  pages: readonly string[];
  onPage: (page: string) => void;
  onCheck: (id: string) => void;
  act: Record<string, () => void>;
  onTeam: boolean;
}

/** Everything by name. */
export function Palette({ rows, pages, onPage, onCheck, act, onTeam }: Props) {
  const actions = [
    ...pages.map((page) => ({
      id: `page-${page}`,
      label: page.charAt(0).toUpperCase() + page.slice(1),
      description: "stage",
      onClick: () => {
        onPage(page);
      },
    })),
    ...(onTeam
      ? KEYS.map((k) => ({
          id: `act-${k.act}`,
          label: k.says,
          description: strings.key(k.shown),
          onClick: () => act[k.act]?.(),
        }))
      : []),
    ...rows.map((row) => ({
      id: row.check.id,
      label: `${row.label} – ${row.check.meaning}`,
      description: verdictWords(row.check),
      onClick: () => {
        onCheck(row.check.id);
      },
    })),
  ];
  return (
    <Spotlight
      actions={actions}
      shortcut="mod + K"
      limit={12}
      nothingFound={strings.noMatch}
      searchProps={{ placeholder: strings.searchForAStageAn, "aria-label": strings.search }}
    />
  );
}
