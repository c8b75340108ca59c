import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it } from "vitest";
import { server, show } from "../review/testing";
import { SignIn } from "./SignIn";

const SIGNED_OUT = { person: null, providers: [{ id: "office", name: "Northlight identity" }], mail_is_caught: true };
const LOGIN = "POST /_allauth/browser/v1/auth/login";
const SECOND = "POST /_allauth/browser/v1/auth/2fa/authenticate";

async function fill() {
  await userEvent.type(screen.getByLabelText(/E-mail address/), "ilse.varga@hesper-review.example");
  await userEvent.type(screen.getByLabelText(/^Password/), "a long password");
  await userEvent.click(screen.getByRole("button", { name: "Sign in" }));
}

it("sends address and password", async () => {
  const asked = server({ "GET /api/session/": () => [200, SIGNED_OUT], [LOGIN]: () => [200, {}] });
  show(<SignIn />, "/");
  await fill();
  await waitFor(() => {
    expect(asked.map((a) => a.path)).toContain("/_allauth/browser/v1/auth/login");
  });
  expect(asked.find((a) => a.method === "POST")?.body).toEqual({
    email: "ilse.varga@hesper-review.example",
    password: "a long password",
  });
});

it("says that address and password do not match, without naming which", async () => {
  server({
    "GET /api/session/": () => [200, SIGNED_OUT],
    [LOGIN]: () => [400, { errors: [{ code: "email_password_mismatch", message: "x", param: "password" }] }],
  });
  show(<SignIn />, "/");
  await fill();
  expect(await screen.findByText(/The e-mail address and the password do not match/)).toBeInTheDocument();
});

it.each([
  [429, {}, /Too many attempts/],
  [400, { errors: [{ code: "too_many_login_attempts", message: "x" }] }, /Too many attempts on this account/],
  [409, {}, /This is not possible now/],
  [500, {}, /The server answered 500/],
])("explains the answer %i", async (status, body, words) => {
  server({ "GET /api/session/": () => [200, SIGNED_OUT], [LOGIN]: () => [status, body] });
  show(<SignIn />, "/");
  await fill();
  expect(await screen.findByText(words)).toBeInTheDocument();
});

it("requires the second factor where there is one", async () => {
  const asked = server({
    "GET /api/session/": () => [200, SIGNED_OUT],
    [LOGIN]: () => [401, { data: { flows: [{ id: "mfa_authenticate", is_pending: true, types: ["totp"] }] } }],
    [SECOND]: () => [400, { errors: [{ code: "incorrect_code", message: "Incorrect code.", param: "code" }] }],
  });
  show(<SignIn />, "/");
  await fill();
  const code = await screen.findByLabelText("Code from your authenticator, or a recovery code");
  expect(screen.getByRole("button", { name: "Sign in" })).toBeDisabled();
  await userEvent.type(code, " 123456 {Enter}");
  expect(await screen.findByText(/Incorrect code/)).toBeInTheDocument();
  expect(asked.at(-1)?.body).toEqual({ code: "123456" });
  expect(screen.queryByRole("button", { name: "Use a passkey" })).not.toBeInTheDocument();
});

it("offers the identity provider, the reset of a password and the mail of the demo", async () => {
  server({ "GET /api/session/": () => [200, SIGNED_OUT] });
  show(<SignIn />, "/");
  expect(await screen.findByRole("button", { name: "Sign in with Northlight identity" })).toBeInTheDocument();
  expect(screen.getByRole("link", { name: "Forgot your password?" })).toHaveAttribute("href", "/account/reset");
  expect(screen.getByRole("link", { name: "Mail of the demo" })).toHaveAttribute("href", "/mail");
});
