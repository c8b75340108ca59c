import { Button, FileButton, Select } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { useReviewContext } from "../../review/ReviewContext";
import { answered, api, type LoadCase, type Schemas } from "../../shared/api/client";
import { Problems } from "../../shared/Problems";
import { ValueInput } from "../../shared/ValueInput";
import { strings } from "./strings";

type Record = Schemas["GroundRecord"];
const UNITS = ["g", "m/s2", "cm/s2", "mm/s2"];

/** The file of a record; what it does not say of itself is required. */
export function ChooseRecord({ loadCase, onRead }: { loadCase: LoadCase; onRead: (record: Record) => void }) {
  const { review } = useReviewContext();
  const [file, setFile] = useState<{ name: string; text: string } | null>(null);
  const [unit, setUnit] = useState("");
  const [dt, setDt] = useState<number | null>(null);
  const [along, setAlong] = useState<"X" | "Y">(loadCase.direction === "Y" ? "Y" : "X");
  const read = useMutation({
    mutationFn: (given: { name: string; text: string }) =>
      answered(
        api.POST("/api/reviews/{review_id}/model/record/", {
          params: { path: { review_id: review.id } },
          body: { text: given.text, unit, ...(dt === null ? {} : { dt }) },
        }),
      ),
    onSuccess: (found, given) => {
      onRead({ ...found, name: given.name.slice(0, 60), case: loadCase.name, direction: along });
    },
  });
  return (
    <div className="histories-choose">
      <FileButton
        onChange={(chosen) => {
          if (!chosen) return;
          void chosen.text().then((text) => {
            const given = { name: chosen.name, text };
            setFile(given);
            read.mutate(given);
          });
        }}
      >
        {(props) => (
          <Button variant="default" {...props}>
            {strings.selectTheRecordOf(loadCase.name)}
          </Button>
        )}
      </FileButton>
      <Select
        aria-label={strings.unitOfTheAccelerations}
        placeholder={strings.unitFromTheFile}
        w={170}
        clearable
        value={unit || null}
        data={UNITS}
        onChange={(v) => {
          setUnit(v ?? "");
        }}
      />
      <ValueInput
        aria-label={strings.timeStepOfTheRecord}
        placeholder={strings.stepFromTheFile}
        w={170}
        unit="s"
        value={dt}
        onCommit={setDt}
      />
      {loadCase.direction !== "X" && loadCase.direction !== "Y" && (
        <Select
          aria-label={strings.directionOfTheRecord}
          w={90}
          allowDeselect={false}
          value={along}
          data={["X", "Y"]}
          onChange={(v) => {
            setAlong(v === "Y" ? "Y" : "X");
          }}
        />
      )}
      {file && read.isError && (
        <Button
          variant="default"
          onClick={() => {
            read.mutate(file);
          }}
        >
          {strings.readAgain(file.name)}
        </Button>
      )}
      <Problems error={read.error} title={strings.theRecordCannotBeRead} />
    </div>
  );
}
