import { Button, Switch, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answered, api, type Schemas } from "../shared/api/client";
import { Problems } from "../shared/Problems";
import { strings } from "./strings";

type Choice = Schemas["Notices"];
const KINDS = ["issued", "answered", "submitted", "due", "daily"] as const;
const KEY = ["notices"];

/** Of what mail is sent, and the calendar of due dates. */
export function Notices() {
  const client = useQueryClient();
  const choice = useQuery({ queryKey: KEY, queryFn: () => answered(api.GET("/api/account/notices/")) });
  const settle = () => client.invalidateQueries({ queryKey: KEY });
  const change = useMutation({
    mutationFn: (body: Partial<Choice>) => answered(api.PATCH("/api/account/notices/", { body })),
    onSettled: settle,
  });
  const make = useMutation({
    mutationFn: () => answered(api.POST("/api/account/calendar/")),
    onSettled: settle,
  });
  const end = useMutation({
    mutationFn: () => answered(api.DELETE("/api/account/calendar/")),
    onSettled: settle,
  });
  if (!choice.data) return null;
  return (
    <>
      {KINDS.map((kind) => (
        <Switch
          key={kind}
          size="xs"
          mb={6}
          label={strings.notices[kind]}
          checked={choice.data[kind] ?? false}
          onChange={(e) => {
            change.mutate({ [kind]: e.currentTarget.checked });
          }}
        />
      ))}
      <Problems error={change.error ?? make.error ?? end.error} title={strings.notSaved} />
      <h3>{strings.calendar}</h3>
      <p className="quiet">{strings.calendarExplained}</p>
      {make.data && (
        <TextInput
          readOnly
          label={strings.calendarAddress}
          value={make.data.address}
          onFocus={(e) => {
            e.currentTarget.select();
          }}
          mb={6}
        />
      )}
      <div className="bench-file">
        <Button
          variant="default"
          size="xs"
          loading={make.isPending}
          onClick={() => {
            make.mutate();
          }}
        >
          {choice.data.calendar ? strings.anotherAddress : strings.makeAddress}
        </Button>
        {choice.data.calendar && (
          <Button
            variant="subtle"
            size="xs"
            color="gray"
            onClick={() => {
              end.mutate();
            }}
          >
            {strings.endCalendar}
          </Button>
        )}
      </div>
    </>
  );
}
