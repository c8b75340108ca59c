import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it, vi } from "vitest";
import { server, show } from "../review/testing";
import { accounts, IdentityRequired } from "./accounts";
import { useConfirmIdentity } from "./ConfirmIdentity";

const AGAIN = "POST /_allauth/browser/v1/auth/reauthenticate";
const FLOWS = [{ id: "reauthenticate" }, { id: "mfa_reauthenticate", types: ["totp"] }];

/** A button that needs an identity that was confirmed. */
function Page({ act, ended }: { act: () => Promise<string>; ended: (with_: string) => void }) {
  const { doing, dialog } = useConfirmIdentity();
  return (
    <>
      <button
        type="button"
        onClick={() => {
          doing(act).then(ended, (error: unknown) => {
            ended(error instanceof Error ? error.message : "other");
          });
        }}
      >
        change
      </button>
      {dialog}
    </>
  );
}

it("asks for the password, and does once more what was refused", async () => {
  let confirmed = false;
  const asked = server({
    [AGAIN]: () => {
      confirmed = true;
      return [200, {}];
    },
  });
  const act = vi.fn(() => (confirmed ? Promise.resolve("done") : Promise.reject(new IdentityRequired(FLOWS))));
  const ended = vi.fn();
  show(<Page act={act} ended={ended} />);
  await userEvent.click(screen.getByRole("button", { name: "change" }));
  expect(await screen.findByText(/Enter your password or your second factor/)).toBeInTheDocument();
  expect(screen.getByRole("button", { name: "Continue" })).toBeDisabled();
  await userEvent.type(screen.getByLabelText("Password"), "a long password");
  await userEvent.click(screen.getByRole("button", { name: "Continue" }));
  await waitFor(() => {
    expect(ended).toHaveBeenCalledExactlyOnceWith("done");
  });
  expect(act).toHaveBeenCalledTimes(2);
  expect(asked.map((a) => a.body)).toEqual([{ password: "a long password" }]);
});

it("uses the code where one is entered, and shows why it was refused", async () => {
  const asked = server({
    "POST /_allauth/browser/v1/auth/2fa/reauthenticate": () => [
      400,
      { errors: [{ code: "incorrect_code", message: "Incorrect code.", param: "code" }] },
    ],
  });
  const ended = vi.fn();
  show(<Page act={() => Promise.reject(new IdentityRequired(FLOWS))} ended={ended} />);
  await userEvent.click(screen.getByRole("button", { name: "change" }));
  await userEvent.type(await screen.findByLabelText(/Code from your authenticator/), "000000{Enter}");
  expect(await screen.findByText(/Incorrect code/)).toBeInTheDocument();
  expect(asked[0]?.body).toEqual({ code: "000000" });
  expect(ended).not.toHaveBeenCalled();
});

it("leaves everything as it was where the dialog is closed", async () => {
  server({});
  const ended = vi.fn();
  const act = vi.fn(() => Promise.reject(new IdentityRequired([{ id: "reauthenticate" }])));
  show(<Page act={act} ended={ended} />);
  await userEvent.click(screen.getByRole("button", { name: "change" }));
  await screen.findByLabelText("Password");
  expect(screen.queryByLabelText(/Code from your authenticator/)).not.toBeInTheDocument();
  await userEvent.keyboard("{Escape}");
  await waitFor(() => {
    expect(ended).toHaveBeenCalledExactlyOnceWith("sign-in must be confirmed first");
  });
  expect(act).toHaveBeenCalledTimes(1);
});

it("does not ask for an error of another kind", async () => {
  server({});
  const ended = vi.fn();
  show(<Page act={() => Promise.reject(new Error("the name is in use"))} ended={ended} />);
  await userEvent.click(screen.getByRole("button", { name: "change" }));
  await waitFor(() => {
    expect(ended).toHaveBeenCalledExactlyOnceWith("the name is in use");
  });
});

it("tells an unconfirmed identity from a signed-out person", async () => {
  server({
    "POST /_allauth/browser/v1/account/email": () => [
      401,
      { meta: { is_authenticated: true }, data: { flows: FLOWS } },
    ],
    "GET /_allauth/browser/v1/account/email": () => [401, { meta: { is_authenticated: false } }],
  });
  await expect(accounts("POST", "account/email", {})).rejects.toThrow(IdentityRequired);
  expect((await accounts("GET", "account/email")).status).toBe(401);
});

it("says that the server cannot be reached", async () => {
  vi.stubGlobal("fetch", () => Promise.reject(new TypeError("network")));
  await expect(accounts("GET", "account/email")).rejects.toMatchObject({
    problems: [{ message: "The server cannot be reached" }],
  });
});
