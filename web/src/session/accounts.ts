import { ApiProblem, cookie, type Problem } from "../shared/api/client";
import { strings } from "./strings";

/** What the accounts library answers: its data, or what has to be done first. */
interface Answer<T> {
  status: number;
  data?: T;
  meta?: Record<string, unknown>;
  errors?: { message: string; code: string; param?: string }[];
}

export interface Flow {
  id: string;
  is_pending?: boolean;
  types?: string[];
}

const BASE = "/_allauth/browser/v1/";

/** Somebody has to say once more who they are before this goes on. */
export class IdentityRequired extends Error {
  constructor(readonly flows: Flow[]) {
    super(strings.signInMustBeConfirmed);
  }
}

/** Ask the accounts library; raises ApiProblem, or AskedAgain where who is signed in has to show it once more. */
export async function accounts<T>(method: string, path: string, body?: unknown): Promise<Answer<T>> {
  let response: Response;
  try {
    response = await fetch(BASE + path, {
      method,
      headers: { "Content-Type": "application/json", "X-CSRFToken": cookie("csrftoken") },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
  } catch {
    throw new ApiProblem(0, [
      { path: "/", message: strings.theServerCantBeReached, remedy: strings.checkThatItIsRunning },
    ]);
  }
  const answer = (await response.json().catch(() => ({}))) as Answer<T> & { data?: { flows?: Flow[] } };
  const flows = answer.data?.flows ?? [];
  if (response.status === 401 && answer.meta?.is_authenticated) throw new IdentityRequired(flows);
  if (response.ok || response.status === 401 || response.status === 404) return { ...answer, status: response.status };
  throw new ApiProblem(response.status, problemsOf(response.status, answer));
}

function problemsOf(status: number, answer: Answer<unknown> & { detail?: string }): Problem[] {
  if (status === 429) return [{ path: "/", message: strings.tooManyAttempts, remedy: strings.waitFiveMinutesAndTry }];
  if (status === 409)
    return [{ path: "/", message: strings.thisIsNotPossibleNow, remedy: strings.reloadThePageAndStart }];
  const errors = answer.errors ?? [];
  if (errors.length === 0)
    return [{ path: "/", message: answer.detail ?? strings.theServerAnswered(status), remedy: strings.tryAgain }];
  return errors.map((e) =>
    e.code === "email_password_mismatch"
      ? {
          path: "/password",
          message: strings.theEMailAddressAnd,
          remedy: strings.checkBothAForgottenPassword,
        }
      : e.code === "too_many_login_attempts"
        ? { path: "/", message: strings.tooManyAttemptsOnThis, remedy: strings.waitFiveMinutesAndTry }
        : { path: `/${e.param ?? ""}`, message: e.message.replace(/\.$/, ""), remedy: "" },
  );
}

// passkeys: what is kept by the device of a person

interface CredentialMaker {
  parseCreationOptionsFromJSON: (json: unknown) => PublicKeyCredentialCreationOptions;
  parseRequestOptionsFromJSON: (json: unknown) => PublicKeyCredentialRequestOptions;
}

const maker = () => window.PublicKeyCredential as unknown as CredentialMaker;

/** Whether this browser takes passkeys at this address: by TLS or on this machine, and by name. */
export const takesPasskeys = () =>
  typeof window.PublicKeyCredential === "function" &&
  window.isSecureContext &&
  !/^[\d.]+$|:/.test(window.location.hostname);

const NOTHING_CHOSEN = new ApiProblem(0, [
  { path: "/", message: strings.noPasskeyWasUsed, remedy: strings.tryAgainOrContinueWith },
]);

/** A new passkey of this device, as the server takes it. */
export async function newPasskey(options: { publicKey: unknown }): Promise<unknown> {
  const publicKey = maker().parseCreationOptionsFromJSON(options.publicKey);
  const made = await navigator.credentials.create({ publicKey }).catch(() => null);
  if (!made) throw NOTHING_CHOSEN;
  return (made as PublicKeyCredential).toJSON();
}

/** Let the device show that it holds a passkey, and hand that in at an address. */
export async function showPasskey(path: string): Promise<Answer<{ flows?: Flow[] }>> {
  const request = await accounts<{ request_options: { publicKey: unknown } }>("GET", path);
  const publicKey = maker().parseRequestOptionsFromJSON(request.data?.request_options.publicKey);
  const credential = await navigator.credentials.get({ publicKey }).catch(() => null);
  if (!credential) throw NOTHING_CHOSEN;
  return accounts("POST", path, { credential: (credential as PublicKeyCredential).toJSON() as unknown });
}
