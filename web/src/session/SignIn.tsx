import { Button, PasswordInput, TextInput } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { answered, api, cookie } from "../shared/api/client";
import { takeSession, useSession } from "../shared/api/queries";
import { Problems } from "../shared/Problems";
import { accounts, showPasskey, takesPasskeys, type Flow } from "./accounts";
import { SignedOutPage } from "./SignedOutPage";
import { strings } from "./strings";

interface Opened {
  flows?: Flow[];
}

export function SignIn() {
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const [code, setCode] = useState("");
  // kinds of second factors that are required, once the password was right
  const [factors, setFactors] = useState<string[] | null>(null);
  const session = useSession();
  const client = useQueryClient();
  const entered = async (answer: { status: number; data?: Opened | undefined }) => {
    if (answer.status === 200) {
      takeSession(client, await answered(api.GET("/api/session/")));
      return;
    }
    const pending = answer.data?.flows?.find((f) => f.id === "mfa_authenticate" && f.is_pending);
    setFactors(pending?.types ?? null);
  };
  const open = useMutation({
    mutationFn: () => accounts<Opened>("POST", "auth/login", { email, password }),
    onSuccess: entered,
  });
  const second = useMutation({
    mutationFn: () => accounts<Opened>("POST", "auth/2fa/authenticate", { code: code.trim() }),
    onSuccess: entered,
  });
  const passkey = useMutation({ mutationFn: (path: string) => showPasskey(path), onSuccess: entered });
  if (factors)
    return (
      <SignedOutPage title={strings.secondFactor}>
        <form
          onSubmit={(e) => {
            e.preventDefault();
            second.mutate();
          }}
        >
          <TextInput
            size="sm"
            label={strings.codeFromYourAuthenticatorOr}
            autoComplete="one-time-code"
            autoFocus
            value={code}
            onChange={(e) => {
              setCode(e.currentTarget.value);
            }}
            mt="lg"
          />
          <Problems error={second.error ?? passkey.error} />
          <div className="door-acts">
            <Button type="submit" size="sm" color="dark" loading={second.isPending} disabled={!code.trim()}>
              {strings.signIn}
            </Button>
            {factors.includes("webauthn") && takesPasskeys() && (
              <Button
                size="sm"
                variant="default"
                onClick={() => {
                  passkey.mutate("auth/webauthn/authenticate");
                }}
              >
                {strings.useAPasskey}
              </Button>
            )}
          </div>
        </form>
      </SignedOutPage>
    );
  return (
    <SignedOutPage title={strings.vigilantPlumb}>
      <p className="quiet">{strings.independentRecheckOfSeismicAnalyses}</p>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          open.mutate();
        }}
      >
        <TextInput
          size="sm"
          label={strings.eMailAddress}
          type="email"
          autoComplete="username webauthn"
          required
          autoFocus
          value={email}
          onChange={(e) => {
            setEmail(e.currentTarget.value);
          }}
          mt="lg"
        />
        <PasswordInput
          label={strings.password}
          autoComplete="current-password"
          required
          value={password}
          onChange={(e) => {
            setPassword(e.currentTarget.value);
          }}
          mt="sm"
        />
        <Problems error={open.error ?? passkey.error} />
        <div className="door-acts">
          <Button type="submit" size="sm" color="dark" loading={open.isPending}>
            {strings.signIn}
          </Button>
          {takesPasskeys() && (
            <Button
              size="sm"
              variant="default"
              loading={passkey.isPending}
              onClick={() => {
                passkey.mutate("auth/webauthn/login");
              }}
            >
              {strings.signInWithAPasskey}
            </Button>
          )}
        </div>
      </form>
      {session.data?.providers.map((p) => (
        <form key={p.id} method="post" action="/_allauth/browser/v1/auth/provider/redirect">
          <input type="hidden" name="csrfmiddlewaretoken" value={cookie("csrftoken")} />
          <input type="hidden" name="provider" value={p.id} />
          <input type="hidden" name="process" value="login" />
          <input type="hidden" name="callback_url" value={window.location.pathname} />
          <Button type="submit" size="sm" variant="default" mt="xs">
            {strings.signInWith(p.name)}
          </Button>
        </form>
      ))}
      <p className="door-more">
        <Link to="/account/reset">{strings.forgotYourPassword}</Link>
        {session.data?.mail_is_caught && (
          <>
            {" · "}
            <Link to="/mail">{strings.mailOfTheDemo}</Link>
          </>
        )}
      </p>
    </SignedOutPage>
  );
}
