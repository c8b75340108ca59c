import { Button, PasswordInput, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { accounts } from "../session/accounts";
import { useConfirmIdentity } from "../session/ConfirmIdentity";
import { NewPassword } from "../session/Links";
import { answered, api, type Person } from "../shared/api/client";
import { sessionQuery, useSession } from "../shared/api/queries";
import { Appearance } from "../shared/Appearance";
import { Problems } from "../shared/Problems";
import { AddressLine } from "./AddressLine";
import { Factors } from "./Factors";
import { Keys } from "./Keys";
import { Notices } from "./Notices";
import { Records } from "./Records";
import { Sessions } from "./Sessions";
import "./account.css";
import { strings } from "./strings";
import css from "./AccountPage.module.css";
import type { Doing } from "./doing";

/** Who am I here, and how do I come in? */
export default function AccountPage() {
  const session = useSession();
  const { doing, dialog } = useConfirmIdentity();
  const person = session.data?.person;
  const records = useQuery({
    queryKey: ["own records"],
    queryFn: () => answered(api.GET("/api/account/records/")),
  });
  if (!person) return null;
  return (
    <main className="account">
      <header className="reviews-head">
        <h1>{strings.yourAccount}</h1>
        <span className="quiet">{person.email}</span>
        <Appearance />
        <Button variant="default" component={Link} to="/">
          {strings.reviews}
        </Button>
      </header>
      <section>
        <h2>{strings.name}</h2>
        <About person={person} />
      </section>
      <section>
        <h2>{strings.address}</h2>
        <Address doing={doing} />
      </section>
      <section>
        <h2>{strings.password}</h2>
        <Password />
      </section>
      <section>
        <h2>{strings.secondFactorsAndPasskeys}</h2>
        <Factors doing={doing} />
      </section>
      <section>
        <h2>{strings.whereYouAreSignedIn}</h2>
        <Sessions />
      </section>
      <section>
        <h2>{strings.noticesTitle}</h2>
        <Notices />
      </section>
      <section>
        <h2>{strings.apiKeys}</h2>
        <Keys doing={doing} />
      </section>
      <section>
        <h2>{strings.activityLog}</h2>
        <Records error={records.error} records={records.data?.slice(0, 12)} />
      </section>
      {dialog}
    </main>
  );
}

function About({ person }: { person: Person }) {
  const client = useQueryClient();
  const [about, setAbout] = useState({ name: person.name, firm: person.firm });
  const save = useMutation({
    mutationFn: () => answered(api.PATCH("/api/account/", { body: about })),
    onSuccess: () => client.invalidateQueries({ queryKey: sessionQuery.queryKey }),
  });
  return (
    <form
      className="account-line"
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <TextInput
        label={strings.nameAsShownInReports}
        required
        maxLength={120}
        w={260}
        value={about.name}
        onChange={(e) => {
          const name = e.currentTarget.value;
          setAbout((a) => ({ ...a, name }));
        }}
      />
      <TextInput
        label={strings.firm}
        maxLength={120}
        w={260}
        value={about.firm}
        onChange={(e) => {
          const firm = e.currentTarget.value;
          setAbout((a) => ({ ...a, firm }));
        }}
      />
      <Button type="submit" variant="default" loading={save.isPending}>
        {save.isSuccess ? strings.saved : strings.save}
      </Button>
      <Problems error={save.error} title={strings.notSaved} />
    </form>
  );
}

interface EmailAddress {
  email: string;
  verified: boolean;
  primary: boolean;
}

function Address({ doing }: { doing: Doing }) {
  const client = useQueryClient();
  const addresses = useQuery({
    queryKey: ["addresses"],
    queryFn: () => accounts<EmailAddress[]>("GET", "account/email"),
  });
  const ask = useMutation({
    mutationFn: (email: string) => doing(() => accounts("POST", "account/email", { email })),
    onSuccess: () => client.invalidateQueries({ queryKey: ["addresses"] }),
  });
  const waiting = addresses.data?.data?.find((a) => !a.verified);
  return (
    <>
      {waiting && <p className="quiet">{strings.aLinkWasSentTo(waiting.email)}</p>}
      <AddressLine
        label={strings.newEMailAddressFor}
        action={strings.sendALink}
        pending={ask.isPending}
        onSend={ask.mutateAsync}
      >
        <Problems error={ask.error} title={strings.nothingWasChanged} />
      </AddressLine>
    </>
  );
}

function Password() {
  const [current, setCurrent] = useState("");
  const [password, setPassword] = useState("");
  const change = useMutation({
    mutationFn: () =>
      accounts("POST", "account/password/change", { current_password: current, new_password: password }),
    onSuccess: () => {
      setCurrent("");
      setPassword("");
    },
  });
  return (
    <form
      className="account-line"
      onSubmit={(e) => {
        e.preventDefault();
        change.mutate();
      }}
    >
      <PasswordInput
        label={strings.currentPassword}
        autoComplete="current-password"
        required
        w={260}
        value={current}
        onChange={(e) => {
          setCurrent(e.currentTarget.value);
        }}
      />
      <div className={css["width"]}>
        <NewPassword value={password} onChange={setPassword} />
      </div>
      <Button type="submit" variant="default" size="sm" loading={change.isPending}>
        {change.isSuccess ? strings.changed : strings.changePassword}
      </Button>
      <Problems error={change.error} title={strings.nothingWasChanged} />
    </form>
  );
}
