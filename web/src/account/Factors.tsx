import { Button, Checkbox, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { renderSVG } from "uqr";
import { accounts, newPasskey, takesPasskeys } from "../session/accounts";
import { sessionQuery } from "../shared/api/queries";
import { day } from "../shared/dates";
import { Problems } from "../shared/Problems";
import type { Doing } from "./doing";
import { strings } from "./strings";

interface Factor {
  type: "totp" | "webauthn" | "recovery_codes";
  created_at: number;
  last_used_at: number | null;
  id?: number;
  name?: string;
  is_passwordless?: boolean;
  unused_code_count?: number;
  unused_codes?: string[];
}

const PATH = "account/authenticators";

/** What is required besides the password: an authenticator, passkeys, and the codes for when both are lost. */
export function Factors({ doing }: { doing: Doing }) {
  const client = useQueryClient();
  const factors = useQuery({ queryKey: ["factors"], queryFn: () => accounts<Factor[]>("GET", PATH) });
  const refresh = () =>
    Promise.all([
      client.invalidateQueries({ queryKey: ["factors"] }),
      client.invalidateQueries({ queryKey: sessionQuery.queryKey }),
    ]);
  const remove = useMutation({
    mutationFn: (factor: Factor) =>
      doing(() =>
        factor.type === "totp"
          ? accounts("DELETE", `${PATH}/totp`)
          : accounts("DELETE", `${PATH}/webauthn`, { authenticators: [factor.id] }),
      ),
    onSuccess: refresh,
  });
  const factorList = factors.data?.data ?? [];
  const totp = factorList.find((f) => f.type === "totp");
  const passkeys = factorList.filter((f) => f.type === "webauthn");
  const codes = factorList.find((f) => f.type === "recovery_codes");
  return (
    <>
      {factorList.length === 0 && <p className="quiet">{strings.noneYetAnyoneWithYour}</p>}
      {totp || passkeys.length > 0 ? (
        <table className="plain">
          <tbody>
            {totp && <Row factor={totp} name="Authenticator" onRemove={remove.mutate} />}
            {passkeys.map((p) => (
              <Row
                key={p.id}
                factor={p}
                name={strings.passkey(p.name ?? "", p.is_passwordless ? strings.usableWithoutPassword : "")}
                onRemove={remove.mutate}
              />
            ))}
          </tbody>
        </table>
      ) : null}
      <Problems error={remove.error} title={strings.secondFactorNotRemoved} />
      {!totp && <AddAuthenticator doing={doing} onAdded={refresh} />}
      <AddPasskey doing={doing} onAdded={refresh} />
      {codes && <RecoveryCodes doing={doing} codes={codes} onMade={refresh} />}
    </>
  );
}

function Row({ factor, name, onRemove }: { factor: Factor; name: string; onRemove: (factor: Factor) => void }) {
  return (
    <tr>
      <td>{name}</td>
      <td className="quiet">{strings.since(day(new Date(factor.created_at * 1000).toISOString()))}</td>
      <td className="quiet">
        {factor.last_used_at
          ? strings.lastUsed(day(new Date(factor.last_used_at * 1000).toISOString()))
          : strings.notUsedYet}
      </td>
      <td>
        <button
          type="button"
          className="linklike"
          onClick={() => {
            onRemove(factor);
          }}
        >
          {strings.remove}
        </button>
      </td>
    </tr>
  );
}

function AddAuthenticator({ doing, onAdded }: { doing: Doing; onAdded: () => Promise<unknown> }) {
  const [code, setCode] = useState("");
  const begin = useMutation({
    mutationFn: () =>
      doing(async () => (await accounts("GET", `${PATH}/totp`)).meta as { secret: string; totp_url: string }),
  });
  const add = useMutation({
    mutationFn: () => doing(() => accounts("POST", `${PATH}/totp`, { code: code.trim() })),
    onSuccess: onAdded,
  });
  if (!begin.data)
    return (
      <div className="account-line">
        <Button
          variant="default"
          loading={begin.isPending}
          onClick={() => {
            begin.mutate();
          }}
        >
          {strings.addAnAuthenticator}
        </Button>
        <Problems error={begin.error} title={strings.theSecondFactorCouldNot} />
      </div>
    );
  return (
    <form
      className="account-code"
      onSubmit={(e) => {
        e.preventDefault();
        add.mutate();
      }}
    >
      <div
        className="account-qr"
        role="img"
        aria-label={strings.theSecretAsAQr}
        dangerouslySetInnerHTML={{ __html: renderSVG(begin.data.totp_url, { border: 1 }) }}
      />
      <div>
        <p>
          {strings.scanTheCodeWithThe}
          <code>{begin.data.secret}</code>
          {strings.thereThenEnterTheCode}
        </p>
        <div className="account-line">
          <TextInput
            label={strings.code}
            w={120}
            required
            autoFocus
            autoComplete="one-time-code"
            value={code}
            onChange={(e) => {
              setCode(e.currentTarget.value);
            }}
          />
          <Button type="submit" color="dark" loading={add.isPending}>
            {strings.add}
          </Button>
        </div>
        <Problems error={add.error} title={strings.secondFactorNotAdded} />
      </div>
    </form>
  );
}

function AddPasskey({ doing, onAdded }: { doing: Doing; onAdded: () => Promise<unknown> }) {
  const [name, setName] = useState("");
  const [alone, setAlone] = useState(true);
  const add = useMutation({
    mutationFn: async () => {
      const query = alone ? "?passwordless" : "";
      const options = await doing(() =>
        accounts<{ creation_options: { publicKey: unknown } }>("GET", `${PATH}/webauthn${query}`),
      );
      const credential = await newPasskey(options.data?.creation_options ?? { publicKey: {} });
      return accounts("POST", `${PATH}/webauthn`, { name, credential });
    },
    onSuccess: async () => {
      setName("");
      await onAdded();
    },
  });
  if (!takesPasskeys()) return <p className="quiet">{strings.passkeysNeedASecureAddress}</p>;
  return (
    <form
      className="account-line"
      onSubmit={(e) => {
        e.preventDefault();
        add.mutate();
      }}
    >
      <TextInput
        label={strings.nameOfThePasskeyOn}
        placeholder={strings.suchAsLaptop}
        w={220}
        required
        maxLength={100}
        value={name}
        onChange={(e) => {
          setName(e.currentTarget.value);
        }}
      />
      <Checkbox
        label={strings.passwordless}
        mb={7}
        checked={alone}
        onChange={(e) => {
          setAlone(e.currentTarget.checked);
        }}
      />
      <Button type="submit" variant="default" loading={add.isPending}>
        {strings.addAPasskey}
      </Button>
      <Problems error={add.error} title={strings.secondFactorNotAdded} />
    </form>
  );
}

function RecoveryCodes({ doing, codes, onMade }: { doing: Doing; codes: Factor; onMade: () => Promise<unknown> }) {
  const show = useMutation({
    mutationFn: (method: "GET" | "POST") =>
      doing(async () => {
        const answer = await accounts<Factor>(method, `${PATH}/recovery-codes`, method === "POST" ? {} : undefined);
        return answer.data?.unused_codes;
      }),
    onSuccess: onMade,
  });
  return (
    <>
      <p>
        {strings.recoveryCodes}
        {codes.unused_code_count}
        {strings.leftEachCanBeUsed}
        <button
          type="button"
          className="linklike"
          onClick={() => {
            show.mutate("GET");
          }}
        >
          {strings.showCodes}
        </button>{" "}
        ·{" "}
        <button
          type="button"
          className="linklike"
          onClick={() => {
            show.mutate("POST");
          }}
        >
          {strings.makeNewCodes}
        </button>
      </p>
      {show.data && <pre className="account-codes">{show.data.join("\n")}</pre>}
      {show.isSuccess && !show.data && <p className="quiet">{strings.codesAlreadyShown}</p>}
      <Problems error={show.error} title={strings.theCodesCouldNotBe} />
    </>
  );
}
