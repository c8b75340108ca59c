import { Button } from "@mantine/core";
import { Link } from "react-router";
import type { Frame, Grid, Story } from "../../shared/api/client";
import { Problems } from "../../shared/Problems";
import { GridGeometry } from "./GridGeometry";
import { GridPanels } from "./GridPanels";
import { GridSections } from "./GridSections";
import { GridView } from "./GridView";
import { strings } from "./strings";
import { useGrid } from "./useGrid";

interface Props {
  reviewId: string;
  stories: Story[];
  grid: Grid | null;
  /** whether a frame is there that would be replaced */
  replaces: boolean;
  onTake: (grid: Grid, frame: Frame) => void;
}

/** A regular frame from bays, sections by group, and walls or bracing by bay; drawn while it is edited. */
export function GridBuilder({ reviewId, stories, grid: given, replaces, onTake }: Props) {
  const { grid, set, built, frame, drawn } = useGrid(reviewId, given, stories.length > 0);
  if (stories.length === 0) {
    return (
      <div className="empty">
        <p>{strings.theGridUsesTheStories}</p>
        <Button component={Link} to="../brief">
          {strings.toTheBrief}
        </Button>
      </div>
    );
  }
  return (
    <section aria-label={strings.buildWithTheGrid}>
      <div className="grid-build">
        <div className="grid-parts">
          <GridGeometry grid={grid} set={set} stories={stories.length} />
          <GridSections grid={grid} set={set} />
          <GridPanels grid={grid} set={set} stories={stories.length} />
        </div>
        <div>
          <Problems error={built.error} title={strings.thisGridCannotBeBuilt} />
          {drawn && (
            <GridView
              drawn={drawn}
              frame={frame}
              current={!built.isPlaceholderData}
              replaces={replaces}
              onTake={(built) => {
                onTake(grid, built);
              }}
            />
          )}
        </div>
      </div>
    </section>
  );
}
