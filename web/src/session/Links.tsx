import { Button, PasswordInput, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { answered, api } from "../shared/api/client";
import { takeSession, useSession } from "../shared/api/queries";
import { moment } from "../shared/dates";
import { Problems } from "../shared/Problems";
import { accounts } from "./accounts";
import { Door } from "./Door";

const back = (
  <p className="door-more">
    <Link to="/">To the sign-in</Link>
  </p>
);

/** Ask for a link to set a new password. */
export function AskReset() {
  const [email, setEmail] = useState("");
  const ask = useMutation({ mutationFn: () => accounts("POST", "auth/password/request", { email }) });
  return (
    <Door title="A new password">
      {ask.isSuccess ? (
        <p>
          If {email} has an account here, a link is on its way to it. The link is good once, for some days; the password
          stays as it is until then.
        </p>
      ) : (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            ask.mutate();
          }}
        >
          <TextInput
            size="sm"
            label="E-mail address"
            type="email"
            required
            autoFocus
            value={email}
            onChange={(e) => {
              setEmail(e.currentTarget.value);
            }}
            mt="lg"
          />
          <Problems error={ask.error} />
          <Button type="submit" size="sm" mt="lg" color="dark" loading={ask.isPending}>
            Send me a link
          </Button>
        </form>
      )}
      {back}
    </Door>
  );
}

/** Set a new password by the link of a mail. */
export function Reset() {
  const { key = "" } = useParams();
  const [password, setPassword] = useState("");
  const set = useMutation({ mutationFn: () => accounts("POST", "auth/password/reset", { key, password }) });
  return (
    <Door title="A new password">
      {set.isSuccess ? (
        <p>The password is set. Sign in with it.</p>
      ) : (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            set.mutate();
          }}
        >
          <NewPassword value={password} onChange={setPassword} />
          <Problems error={set.error} />
          <Button type="submit" size="sm" mt="lg" color="dark" loading={set.isPending}>
            Set the password
          </Button>
        </form>
      )}
      {back}
    </Door>
  );
}

export function NewPassword({ value, onChange }: { value: string; onChange: (value: string) => void }) {
  return (
    <PasswordInput
      label="New password"
      description="at least ten characters, not only digits, none of the common ones"
      autoComplete="new-password"
      required
      value={value}
      onChange={(e) => {
        onChange(e.currentTarget.value);
      }}
      mt="sm"
    />
  );
}

/** Confirm an address by the link of a mail. */
export function Verify() {
  const { key = "" } = useParams();
  const verify = useMutation({ mutationFn: () => accounts("POST", "auth/email/verify", { key }) });
  return (
    <Door title="Your address">
      {verify.isSuccess ? (
        <p>The address is confirmed; you sign in with it from now on.</p>
      ) : (
        <>
          <p>Confirm that this address is yours.</p>
          <Problems error={verify.error} />
          <Button
            size="sm"
            mt="lg"
            color="dark"
            loading={verify.isPending}
            onClick={() => {
              verify.mutate();
            }}
          >
            Confirm
          </Button>
        </>
      )}
      {back}
    </Door>
  );
}

/** A provider vouched for somebody who has no account here, or it failed to. */
export function ProviderFailed() {
  return (
    <Door title="Not signed in">
      <p>
        The provider vouches for nobody who has an account here. Sign in with your password, or ask the administrator of
        your office for an invitation to the address that the provider knows.
      </p>
      {back}
    </Door>
  );
}

/** Come in by the link of an invitation. */
export function Invitation() {
  const { key = "" } = useParams();
  const path = { params: { path: { key } } };
  const go = useNavigate();
  const client = useQueryClient();
  const session = useSession();
  const [about, setAbout] = useState({ name: "", firm: "", password: "" });
  const told = useQuery({
    queryKey: ["invitation", key],
    queryFn: () => answered(api.GET("/api/invitations/{key}/", path)),
    retry: false,
  });
  const accept = useMutation({
    mutationFn: () => answered(api.POST("/api/invitations/{key}/", { ...path, body: about })),
    onSuccess: async () => {
      takeSession(client, await answered(api.GET("/api/session/")));
      await go("/");
    },
  });
  if (told.error)
    return (
      <Door title="Invitation">
        <p>This invitation was accepted already, was withdrawn, or is over. Ask for another one.</p>
        {back}
      </Door>
    );
  if (!told.data || !session.data) return null;
  const person = session.data.person;
  const isMine = person?.email === told.data.email;
  const set = (name: keyof typeof about) => (e: { currentTarget: { value: string } }) => {
    const value = e.currentTarget.value;
    setAbout((a) => ({ ...a, [name]: value }));
  };
  return (
    <Door title="You are invited">
      <p>
        {told.data.inviter} invites {told.data.email} to {told.data.to.join("; ") || "Vigilant Plumb"}.{" "}
        <span className="quiet">Good until {moment(told.data.expires_at)}.</span>
      </p>
      {told.data.known && !isMine ? (
        <p>
          This address has an account here. <Link to="/">Sign in with it</Link>
          {person && ` (you are signed in as ${person.email})`}, then open the link of the mail again.
        </p>
      ) : (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            accept.mutate();
          }}
        >
          {!told.data.known && (
            <>
              <TextInput size="sm" label="Your name" required autoFocus value={about.name} onChange={set("name")} />
              <TextInput size="sm" label="Firm" mt="sm" value={about.firm} onChange={set("firm")} />
              <NewPassword
                value={about.password}
                onChange={(password) => {
                  setAbout((a) => ({ ...a, password }));
                }}
              />
            </>
          )}
          <Problems error={accept.error} />
          <Button type="submit" size="sm" mt="lg" color="dark" loading={accept.isPending}>
            Come in
          </Button>
        </form>
      )}
    </Door>
  );
}
