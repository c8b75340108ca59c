import { Button, Modal, PasswordInput, TextInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useCallback, useRef, useState, type ReactNode } from "react";
import { ApiProblem } from "../shared/api/client";
import { Problems } from "../shared/Problems";
import { accounts, IdentityRequired, showPasskey, takesPasskeys, type Flow } from "./accounts";
import { strings } from "./strings";
import css from "./ConfirmIdentity.module.css";

interface Request {
  flows: Flow[];
  why: string;
  resolve: (shown: boolean) => void;
}

/** Ask who is at the keyboard: `ask` is resolved when they showed it, and `dialog` is in the page. */
export function useConfirmIdentity() {
  const [request, setRequest] = useState<Request | null>(null);
  const ask = useCallback(
    async (why: string, flows?: Flow[]) => {
      const available = flows ?? (await flowsOf());
      return new Promise<boolean>((resolve) => {
        setRequest({ flows: available, why, resolve });
      });
    },
    [setRequest],
  );
  /** Do something of the account; where it is asked who they are, ask, and do it once more. */
  const doing = useCallback(
    async <T,>(act: () => Promise<T>): Promise<T> => {
      try {
        return await act();
      } catch (error) {
        const flows = error instanceof IdentityRequired ? error.flows : undefined;
        if (!flows && !asksWho(error)) throw error;
        if (!(await ask(strings.thisChangesHowYouSign, flows))) throw error;
        return act();
      }
    },
    [ask],
  );
  const end = (shown: boolean) => {
    request?.resolve(shown);
    setRequest(null);
  };
  const dialog: ReactNode = request && <WhoIsThere request={request} onEnd={end} />;
  return { ask, doing, dialog };
}

/** Whether the API asks who somebody is before it goes on. */
const asksWho = (error: unknown): boolean =>
  error instanceof ApiProblem && error.status === 401 && error.problems.some(({ path }) => path === "/identity");

async function flowsOf(): Promise<Flow[]> {
  const factors = await accounts<{ type: string }[]>("GET", "account/authenticators");
  const types = (factors.data ?? []).map((f) => f.type);
  return [
    { id: "reauthenticate" },
    ...(types.some((t) => t !== "webauthn") ? [{ id: "mfa_reauthenticate", types: ["totp"] }] : []),
    ...(types.includes("webauthn") ? [{ id: "mfa_reauthenticate", types: ["webauthn"] }] : []),
  ];
}

function WhoIsThere({ request: request, onEnd }: { request: Request; onEnd: (shown: boolean) => void }) {
  const [password, setPassword] = useState("");
  const [code, setCode] = useState("");
  const done = useRef(onEnd);
  const types = request.flows.filter((f) => f.id === "mfa_reauthenticate").flatMap((f) => f.types ?? []);
  const byPassword = request.flows.some((f) => f.id === "reauthenticate");
  const show = useMutation({
    mutationFn: async (how: "typed" | "passkey") => {
      if (how === "passkey") return showPasskey("auth/webauthn/reauthenticate");
      return code
        ? accounts("POST", "auth/2fa/reauthenticate", { code: code.trim() })
        : accounts("POST", "auth/reauthenticate", { password });
    },
    onSuccess: () => {
      done.current(true);
    },
  });
  return (
    <Modal
      opened
      onClose={() => {
        onEnd(false);
      }}
      title={strings.confirmThatItIsYou}
      size="sm"
    >
      <form
        onSubmit={(e) => {
          e.preventDefault();
          show.mutate("typed");
        }}
      >
        <p className="quiet">
          {strings.enterYourPassword(request.why)}
          {types.length > 0 ? strings.orYourSecondFactor : ""}.
        </p>
        {byPassword && (
          <PasswordInput
            label={strings.password}
            autoComplete="current-password"
            data-autofocus
            value={password}
            onChange={(e) => {
              setPassword(e.currentTarget.value);
            }}
          />
        )}
        {types.some((t) => t !== "webauthn") && (
          <TextInput
            label={strings.codeFromYourAuthenticatorOr}
            autoComplete="one-time-code"
            mt="xs"
            value={code}
            onChange={(e) => {
              setCode(e.currentTarget.value);
            }}
          />
        )}
        <Problems error={show.error} />
        <div className={css["row"]}>
          <Button type="submit" color="dark" loading={show.isPending} disabled={!password && !code}>
            {strings.continue}
          </Button>
          {types.includes("webauthn") && takesPasskeys() && (
            <Button
              variant="default"
              onClick={() => {
                show.mutate("passkey");
              }}
            >
              {strings.useAPasskey}
            </Button>
          )}
        </div>
      </form>
    </Modal>
  );
}
