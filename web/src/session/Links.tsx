import { Button, PasswordInput, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { answered, api } from "../shared/api/client";
import { takeSession, useSession } from "../shared/api/queries";
import { moment } from "../shared/dates";
import { Problems } from "../shared/Problems";
import { accounts } from "./accounts";
import { SignedOutPage } from "./SignedOutPage";
import { strings } from "./strings";

const back = (
  <p className="door-more">
    <Link to="/">{strings.toTheSignInPage}</Link>
  </p>
);

/** Request a link to reset the password. */
export function AskReset() {
  const [email, setEmail] = useState("");
  const ask = useMutation({ mutationFn: () => accounts("POST", "auth/password/request", { email }) });
  return (
    <SignedOutPage title={strings.resetThePassword}>
      {ask.isSuccess ? (
        <p>{strings.ifHasAnAccountA(email)}</p>
      ) : (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            ask.mutate();
          }}
        >
          <TextInput
            size="sm"
            label={strings.eMailAddress}
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
            {strings.sendALink}
          </Button>
        </form>
      )}
      {back}
    </SignedOutPage>
  );
}

/** Set a new password by the link of a mail. */
export function Reset() {
  const { key = "" } = useParams();
  const [password, setPassword] = useState("");
  const set = useMutation({ mutationFn: () => accounts("POST", "auth/password/reset", { key, password }) });
  return (
    <SignedOutPage title={strings.resetThePassword}>
      {set.isSuccess ? (
        <p>{strings.thePasswordHasBeenChanged}</p>
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
            {strings.saveThePassword}
          </Button>
        </form>
      )}
      {back}
    </SignedOutPage>
  );
}

export function NewPassword({ value, onChange }: { value: string; onChange: (value: string) => void }) {
  return (
    <PasswordInput
      label={strings.newPassword}
      description={strings.atLeastTenCharactersNot}
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
    <SignedOutPage title={strings.yourAddress}>
      {verify.isSuccess ? (
        <p>{strings.theAddressIsConfirmedUse}</p>
      ) : (
        <>
          <p>{strings.confirmThatThisIsYour}</p>
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
            {strings.confirm}
          </Button>
        </>
      )}
      {back}
    </SignedOutPage>
  );
}

/** Bring an earlier address back by the link of a mail. */
export function UndoAddress() {
  const { key = "" } = useParams();
  const path = { params: { path: { key } } };
  const before = useQuery({
    queryKey: ["address before", key],
    queryFn: () => answered(api.GET("/api/account/undo/{key}/", path)),
    retry: false,
  });
  const undo = useMutation({ mutationFn: () => answered(api.POST("/api/account/undo/{key}/", path)) });
  return (
    <SignedOutPage title={strings.yourAddress}>
      {undo.isSuccess ? (
        <>
          <p>{strings.addressIsBack(undo.data.email)}</p>
          <Button component={Link} to="/account/reset" size="sm" mt="lg" color="dark">
            {strings.resetThePassword}
          </Button>
        </>
      ) : before.error ? (
        <p>{strings.changeCannotBeUndone}</p>
      ) : (
        before.data && (
          <>
            <p>{strings.bringAddressBack(before.data.email)}</p>
            <Problems error={undo.error} />
            <Button
              size="sm"
              mt="lg"
              color="dark"
              loading={undo.isPending}
              onClick={() => {
                undo.mutate();
              }}
            >
              {strings.undoTheChange}
            </Button>
          </>
        )
      )}
      {back}
    </SignedOutPage>
  );
}

/** A provider vouched for somebody who has no account here, or it failed to. */
export function ProviderFailed() {
  return (
    <SignedOutPage title={strings.notSignedIn}>
      <p>{strings.theIdentityProviderReportedNo}</p>
      {back}
    </SignedOutPage>
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
  const invitation = useQuery({
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
  if (invitation.error)
    return (
      <SignedOutPage title={strings.invitation}>
        <p>{strings.thisInvitationWasAlreadyAccepted}</p>
        {back}
      </SignedOutPage>
    );
  if (!invitation.data || !session.data) return null;
  const person = session.data.person;
  const isMine = person?.email === invitation.data.email;
  const set = (name: keyof typeof about) => (e: { currentTarget: { value: string } }) => {
    const value = e.currentTarget.value;
    setAbout((a) => ({ ...a, [name]: value }));
  };
  return (
    <SignedOutPage title={strings.youAreInvited}>
      <p>
        {strings.invitesTo(invitation.data.inviter, invitation.data.email)}
        {invitation.data.to.join("; ") || strings.vigilantPlumb}.{" "}
        <span className="quiet">{strings.validUntil(moment(invitation.data.expires_at))}</span>
      </p>
      {invitation.data.known && !isMine ? (
        <p>
          {strings.thisAddressAlreadyHasAn}
          <Link to="/">{strings.signInWithIt}</Link>
          {person && strings.youAreSignedInAs(person.email)}
          {strings.thenOpenTheLinkIn}
        </p>
      ) : (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            accept.mutate();
          }}
        >
          {!invitation.data.known && (
            <>
              <TextInput
                size="sm"
                label={strings.yourName}
                required
                autoFocus
                value={about.name}
                onChange={set("name")}
              />
              <TextInput size="sm" label={strings.firm} mt="sm" value={about.firm} onChange={set("firm")} />
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
            {strings.createTheAccount}
          </Button>
        </form>
      )}
    </SignedOutPage>
  );
}
