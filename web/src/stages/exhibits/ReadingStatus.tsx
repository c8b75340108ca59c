import { Button, Progress } from "@mantine/core";
import type { Exhibit } from "../../shared/api/client";
import { strings } from "./strings";

interface Props {
  name: string;
  reading: NonNullable<Exhibit["reading"]>;
  onStop: () => void;
}

/** Progress of the reading of a file, or the reason why nothing was read. */
export function ReadingStatus({ name, reading, onStop }: Props) {
  if (reading.status === "queued" || reading.status === "reading")
    return (
      <div className="reading-now" role="status">
        <span>{reading.status === "queued" ? strings.waitingToBeRead : strings.readingPhase(reading.phase)}</span>
        <Progress value={100 * (reading.share ?? 0)} animated w={240} aria-label={strings.howFarTheReadingIs} />
        <Button variant="subtle" size="compact-sm" onClick={onStop}>
          {strings.stop}
        </Button>
      </div>
    );
  if (reading.status === "read") return null;
  return (
    <div className="problem" role="alert">
      <p className="strong">{strings.isStoredUnchangedNothingWas(name)}</p>
      <p>
        {reading.message}. <span className="quiet">{reading.remedy}</span>
      </p>
    </div>
  );
}
