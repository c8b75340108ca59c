import { Button } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { answered, api, type Schemas } from "../shared/api/client";
import { Appearance } from "../shared/Appearance";
import { day } from "../shared/dates";
import { Problems } from "../shared/Problems";
import { AddressLine } from "./AddressLine";
import { LetterheadForm } from "./LetterheadForm";
import { Records } from "./Records";
import "./account.css";
import { ThresholdsForm } from "./ThresholdsForm";
import { strings } from "./strings";

/** Who has an account in this office, and who was let in or kept out? */
export default function OfficePage() {
  const client = useQueryClient();
  const office = useQuery({ queryKey: ["office"], queryFn: () => answered(api.GET("/api/office/people/")) });
  const records = useQuery({
    queryKey: ["office records"],
    queryFn: () => answered(api.GET("/api/office/records/")),
  });
  const refresh = () =>
    Promise.all([
      client.invalidateQueries({ queryKey: ["office"] }),
      client.invalidateQueries({ queryKey: ["office records"] }),
    ]);
  const invite = useMutation({
    mutationFn: (email: string) => answered(api.POST("/api/office/people/", { body: { email } })),
    onSuccess: refresh,
  });
  const withdraw = useMutation({
    mutationFn: (id: number) =>
      answered(api.DELETE("/api/office/invitations/{invitation_id}/", { params: { path: { invitation_id: id } } })),
    onSuccess: refresh,
  });
  return (
    <main className="account">
      <header className="reviews-head">
        <h1>{strings.theOffice}</h1>
        <span className="quiet">{strings.accountsOfTheOffice}</span>
        <Appearance />
        <Button variant="default" component={Link} to="/account">
          {strings.yourAccount}
        </Button>
        <Button variant="default" component={Link} to="/">
          {strings.reviews}
        </Button>
      </header>
      <Problems error={office.error} title={strings.thisCouldNotBeLoaded} />
      <section>
        <h2>{strings.people}</h2>
        <table className="plain">
          <thead>
            <tr>
              <th>{strings.nameColumn}</th>
              <th>{strings.addressColumn}</th>
              <th>{strings.lastSignedIn}</th>
              <th>{strings.secondFactor}</th>
              <th>{strings.account}</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {office.data?.people.map((p) => (
              <PersonRow key={p.id} person={p} onChanged={refresh} />
            ))}
          </tbody>
        </table>
      </section>
      <section>
        <h2>{strings.invited}</h2>
        <table className="plain">
          <tbody>
            {office.data?.invited.map((i) => (
              <tr key={i.id}>
                <td>{i.email}</td>
                <td className="quiet">{strings.by(i.inviter)}</td>
                <td className="quiet">{strings.validUntil(day(i.expires_at))}</td>
                <td>
                  <button
                    type="button"
                    className="linklike"
                    onClick={() => {
                      withdraw.mutate(i.id);
                    }}
                  >
                    {strings.withdraw}
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {office.data?.invited.length === 0 && <p className="quiet">{strings.noOpenInvitations}</p>}
        <AddressLine
          label={strings.eMailAddress}
          action={strings.invite}
          pending={invite.isPending}
          onSend={invite.mutateAsync}
        />
        <Problems error={invite.error ?? withdraw.error} title={strings.notInvited} />
      </section>
      <section>
        <h2>{strings.thresholds}</h2>
        <ThresholdsForm />
      </section>
      <section>
        <h2>{strings.letterhead}</h2>
        <LetterheadForm />
      </section>
      <section>
        <h2>{strings.activityLog}</h2>
        <Records error={records.error} records={records.data?.slice(0, 60)} named />
      </section>
    </main>
  );
}

function PersonRow({ person, onChanged }: { person: Schemas["Colleague"]; onChanged: () => Promise<unknown> }) {
  const path = { params: { path: { user_id: person.id } } };
  const change = useMutation({
    mutationFn: (body: { active?: boolean; administers?: boolean; of_office?: boolean }) =>
      answered(api.PATCH("/api/office/people/{user_id}/", { ...path, body })),
    onSuccess: onChanged,
  });
  const end = useMutation({
    mutationFn: (what: "sessions" | "factors") =>
      answered(
        what === "sessions"
          ? api.DELETE("/api/office/people/{user_id}/sessions/", path)
          : api.DELETE("/api/office/people/{user_id}/factors/", path),
      ),
    onSuccess: onChanged,
  });
  const act = (words: string, run: () => void) => (
    <button type="button" className="linklike" onClick={run}>
      {words}
    </button>
  );
  return (
    <tr className={person.active ? undefined : "quiet"}>
      <td>
        {person.name}
        <div className="quiet">{person.firm}</div>
      </td>
      <td className="account-address">{person.email}</td>
      <td className="quiet">{person.last_login ? day(person.last_login) : strings.never}</td>
      <td className="quiet">{person.second_factor ? strings.yes : strings.none}</td>
      <td>
        {person.active ? strings.active : strings.closed}
        {person.of_office && strings.ofTheOffice}
        {person.administers && strings.administrator}
      </td>
      <td>
        <div className="account-acts">
          {act(person.active ? strings.closeAccount : strings.reopenAccount, () => {
            change.mutate({ active: !person.active });
          })}
          {act(person.administers ? strings.removeAsAdministrator : "administrator", () => {
            change.mutate({ administers: !person.administers });
          })}
          {act(person.of_office ? strings.removeFromOffice : strings.addToOffice, () => {
            change.mutate({ of_office: !person.of_office });
          })}
          {act(strings.endSessions, () => {
            end.mutate("sessions");
          })}
          {person.second_factor &&
            act(strings.resetFactors, () => {
              end.mutate("factors");
            })}
        </div>
        <Problems error={change.error ?? end.error} />
      </td>
    </tr>
  );
}
