import { Button, Select, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api } from "../shared/api/client";
import { day } from "../shared/dates";
import { Problems } from "../shared/Problems";
import type { Doing } from "./doing";
import { strings } from "./strings";

const SCOPES = {
  compute: strings.solveAndRecheckDocuments,
  read: strings.alsoReadReviews,
  write: strings.alsoChangeReviews,
};
type Scope = keyof typeof SCOPES;
const DAYS = { "30": strings.n30Days, "90": strings.n90Days, "366": strings.aYear };

/** Keys that scripts sign in with; each does what it was made for, until its day. */
export function Keys({ doing }: { doing: Doing }) {
  const client = useQueryClient();
  const [name, setName] = useState("");
  const [scope, setScope] = useState<Scope>("compute");
  const [days, setDays] = useState<keyof typeof DAYS>("90");
  const queryKey = ["keys"];
  const keys = useQuery({ queryKey, queryFn: () => answered(api.GET("/api/account/tokens/")) });
  const refresh = () => client.invalidateQueries({ queryKey });
  const make = useMutation({
    mutationFn: () =>
      doing(() => answered(api.POST("/api/account/tokens/", { body: { name, scope, days: Number(days) } }))),
    onSuccess: async () => {
      setName("");
      await refresh();
    },
  });
  const withdraw = useMutation({
    mutationFn: (id: number) =>
      answered(api.DELETE("/api/account/tokens/{token_id}/", { params: { path: { token_id: id } } })),
    onSuccess: refresh,
  });
  return (
    <>
      <table className="plain">
        <tbody>
          {keys.data?.map((k) => (
            <tr key={k.id}>
              <td>{k.name}</td>
              <td className="quiet">{SCOPES[k.scope]}</td>
              <td className="quiet">{strings.until(day(k.expires_at))}</td>
              <td className="quiet">{k.used_at ? strings.lastUsed(day(k.used_at)) : strings.notUsedYet}</td>
              <td>
                <button
                  type="button"
                  className="linklike"
                  onClick={() => {
                    withdraw.mutate(k.id);
                  }}
                >
                  {strings.withdraw}
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {make.data && (
        <p>
          {strings.theKeyShownOnlyOnce}
          <code className="account-key">{make.data.key}</code>
          <br />
          <span className="quiet">{strings.scriptsSendItInThe}</span>
        </p>
      )}
      <form
        className="account-line"
        onSubmit={(e) => {
          e.preventDefault();
          make.mutate();
        }}
      >
        <TextInput
          label={strings.purpose}
          required
          maxLength={60}
          w={200}
          value={name}
          onChange={(e) => {
            setName(e.currentTarget.value);
          }}
        />
        <Select
          label={strings.permissions}
          w={230}
          allowDeselect={false}
          value={scope}
          data={Object.entries(SCOPES).map(([value, label]) => ({ value, label }))}
          onChange={(v) => {
            setScope((v ?? "compute") as Scope);
          }}
        />
        <Select
          label={strings.validFor}
          w={110}
          allowDeselect={false}
          value={days}
          data={Object.entries(DAYS).map(([value, label]) => ({ value, label }))}
          onChange={(v) => {
            setDays((v ?? "90") as keyof typeof DAYS);
          }}
        />
        <Button type="submit" variant="default" loading={make.isPending}>
          {strings.createAKey}
        </Button>
      </form>
      <Problems error={make.error ?? withdraw.error ?? keys.error} />
    </>
  );
}
