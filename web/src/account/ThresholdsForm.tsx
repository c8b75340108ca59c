import { Button, NumberInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api, type Schemas } from "../shared/api/client";
import { useVocabulary } from "../shared/api/queries";
import { day } from "../shared/dates";
import { Problems } from "../shared/Problems";
import { strings } from "./strings";
import { numbersOf, withNumber } from "./thresholds";
import "./account.css";

type Thresholds = Schemas["Thresholds"];
const KEY = ["office thresholds"];

/** When does a recheck ask, beyond the rules of the code? The office's thresholds, each with its default and source. */
export function ThresholdsForm() {
  const client = useQueryClient();
  const stored = useQuery({ queryKey: KEY, queryFn: () => answered(api.GET("/api/office/thresholds/")) });
  const known = useVocabulary().data?.thresholds ?? [];
  const [edited, setEdited] = useState<Thresholds | null>(null);
  const now: Thresholds = edited ?? stored.data?.thresholds ?? {};
  const save = useMutation({
    mutationFn: () =>
      answered(
        api.PUT("/api/office/thresholds/", {
          params: { header: { "If-Match": `"${String(stored.data?.revision ?? 0)}"` } },
          body: now,
        }),
      ),
    onSuccess: async () => {
      setEdited(null);
      await client.invalidateQueries();
    },
  });
  return (
    <>
      <p className="quiet">
        {strings.thresholdsAreUsedBy}
        {stored.data?.updated_at && strings.lastChanged(day(stored.data.updated_at), stored.data.author ?? "")}
      </p>
      <table className="plain">
        <thead>
          <tr>
            <th>{strings.threshold}</th>
            <th>{strings.valueColumn}</th>
            <th>{strings.defaultColumn}</th>
            <th>{strings.sourceOfTheDefault}</th>
          </tr>
        </thead>
        <tbody>
          {known.map((t) => (
            <tr key={t.name}>
              <td>
                {t.words}
                {t.unit && `, ${t.unit}`} <span className="quiet">{t.codes.join(", ")}</span>
              </td>
              <td>
                <span className="thresholds-value">
                  {numbersOf(now, t).map((value, i) => (
                    <NumberInput
                      key={i}
                      aria-label={t.value.length > 1 ? strings.endOf(i, t.words) : t.words}
                      size="xs"
                      w={92}
                      hideControls
                      value={value}
                      onChange={(v) => {
                        setEdited(withNumber(now, t, i, v === "" ? null : Number(v)));
                      }}
                    />
                  ))}
                </span>
              </td>
              <td className="quiet">{t.value.join(strings.bandTo)}</td>
              <td className="quiet">{t.source}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <Problems error={stored.error ?? save.error} title={strings.thresholdsNotSaved} />
      <div className="account-line">
        <Button
          color="dark"
          disabled={!edited}
          loading={save.isPending}
          onClick={() => {
            save.mutate();
          }}
        >
          {strings.saveThresholds}
        </Button>
        <Button
          variant="default"
          disabled={Object.keys(now).length === 0}
          onClick={() => {
            setEdited({});
          }}
        >
          {strings.allDefaults}
        </Button>
      </div>
    </>
  );
}
