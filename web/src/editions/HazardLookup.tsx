import { Button, Select } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api, type Brief, type Edition } from "../shared/api/client";
import { figures, trimmed } from "../shared/numbers";
import { SymbolText } from "../shared/Symbol";
import { Problems } from "../shared/Problems";
import { ValueInput } from "../shared/ValueInput";
import { give, given, type Change } from "./places";
import { strings } from "./strings";
import css from "./HazardLookup.module.css";

/** Values by coordinates from the hazard service: shown with version and date, adopted only on demand. */
export function HazardLookup({ edition, brief, change }: { edition: Edition; brief: Brief; change: Change }) {
  const [latitude, setLatitude] = useState<number | null>(null);
  const [longitude, setLongitude] = useState<number | null>(null);
  const siteClass = edition.inputs.find((i) => i.name === "site_class");
  const byClass = edition.inputs.some((i) => i.name === "mce");
  const ownClass = given(brief, edition.id, { name: "site_class", part: "site" }, null) as string | null | undefined;
  const [chosen, setChosen] = useState<string | null>(null);
  const selectedClass = chosen ?? ownClass ?? "";
  const look = useMutation({
    mutationFn: () =>
      answered(
        api.GET("/api/hazard/", {
          params: {
            query: {
              edition: edition.id,
              latitude: latitude ?? 0,
              longitude: longitude ?? 0,
              ...(byClass && selectedClass ? { site_class: selectedClass } : {}),
            },
          },
        }),
      ),
  });
  const values = Object.entries(look.data?.values ?? {});
  const take = () => {
    change((b) => {
      for (const [name, value] of values) give(b, edition.id, { name, part: "site" }, null, value);
    });
  };
  const used =
    values.length > 0 &&
    values.every(
      ([name, value]) =>
        JSON.stringify(given(brief, edition.id, { name, part: "site" }, null)) === JSON.stringify(value),
    );
  const text = (value: unknown) =>
    typeof value === "number" ? trimmed(value) : typeof value === "string" ? value : strings.aSpectrumOf22Periods;
  const symbol = (name: string) => edition.inputs.find((i) => i.name === name)?.symbol ?? name;
  const unit = (name: string) => edition.inputs.find((i) => i.name === name)?.unit ?? "";
  return (
    <section aria-label={strings.hazardByCoordinates}>
      <h3 className="part">{strings.hazardByCoordinates}</h3>
      <form
        className="lookup"
        onSubmit={(e) => {
          e.preventDefault();
          look.mutate();
        }}
      >
        <ValueInput
          label={strings.latitude}
          w={120}
          unit="°N"
          placeholder="47.62"
          value={latitude}
          onCommit={setLatitude}
        />
        <ValueInput
          label={strings.longitude}
          w={120}
          unit="°E"
          placeholder="−30.41"
          value={longitude}
          onCommit={setLongitude}
        />
        {byClass && siteClass && (
          <Select
            label={strings.siteClass}
            w={110}
            value={selectedClass || null}
            placeholder={strings.required}
            data={siteClass.options.filter((o) => o !== "F").map(String)}
            onChange={setChosen}
          />
        )}
        <Button
          type="submit"
          variant="default"
          loading={look.isPending}
          disabled={latitude === null || longitude === null || (byClass && !selectedClass)}
        >
          {strings.lookUp}
        </Button>
        <span className={`quiet ${css["smallLine"] ?? ""}`}>{strings.n47To49N32}</span>
      </form>
      <Problems error={look.error} title={strings.noValues} />
      {look.data && (
        <div className="lookup-answer" role="status">
          <p className={css["spaced"]}>
            {strings.at(edition.title, figures(look.data.latitude, 4), figures(look.data.longitude, 4))}
            <span className="quiet">{strings.dataOf(look.data.version, look.data.date)}</span>
          </p>
          <table className="plain">
            <tbody>
              {values.map(([name, value]) => (
                <tr key={name}>
                  <td>
                    <SymbolText text={symbol(name)} />
                  </td>
                  <td className="n ours">{text(value)}</td>
                  <td className="quiet">{typeof value === "number" ? unit(name) : ""}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <Button size="compact-sm" mt={6} mb={4} disabled={used} onClick={take}>
            {used ? strings.used : strings.useTheseValues}
          </Button>
        </div>
      )}
    </section>
  );
}
