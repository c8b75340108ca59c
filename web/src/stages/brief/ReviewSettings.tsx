import { Button, Select, Textarea, TextInput } from "@mantine/core";
import { useClipboard } from "@mantine/hooks";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api, type Review } from "../../shared/api/client";
import { useRefresh, useSession } from "../../shared/api/queries";
import { day } from "../../shared/dates";
import { Problems } from "../../shared/Problems";
import { strings } from "./strings";
import css from "./ReviewSettings.module.css";

type Role = Review["team"][number]["role"];
const ROLES: Record<Role, string> = {
  lead: strings.leadSignsReportsManagesMembers,
  reviewer: strings.reviewerRechecksWritesFindings,
  submitter: strings.submitterSubmitsExhibitsAnswersFindings,
  reader: strings.readerReadsTheRegisterAnd,
};

type TeamAct = "role" | "lead" | "remove" | "withdraw";

/** Whose review it is: what the report's cover says, the team, and its end. */
export function ReviewSettings({ review }: { review: Review }) {
  const refresh = useRefresh(review.id);
  const copy = useClipboard();
  const path = { params: { path: { review_id: review.id } } };
  const [about, setAbout] = useState({
    title: review.title,
    place: review.place ?? "",
    client: review.client ?? "",
    description: review.description ?? "",
  });
  const [email, setEmail] = useState("");
  const [role, setRole] = useState<Role>("reviewer");
  const change = useMutation({
    mutationFn: (body: Partial<typeof about> & { status?: "open" | "closed" }) =>
      answered(
        api.PATCH("/api/reviews/{review_id}/", {
          params: { ...path.params, header: { "If-Match": `"${String(review.revision)}"` } },
          body,
        }),
      ),
    onSettled: refresh,
  });
  const add = useMutation({
    mutationFn: () => answered(api.POST("/api/reviews/{review_id}/team/", { ...path, body: { email, role } })),
    onSuccess: async () => {
      setEmail("");
      await refresh();
    },
  });
  const me = useSession().data?.person?.id;
  const team = useMutation({
    mutationFn: ({ act, member, role: given }: { act: TeamAct; member: number; role?: Role }) => {
      const ofMember = { params: { path: { review_id: review.id, user_id: member } } };
      if (act === "role" && given)
        return answered(api.PATCH("/api/reviews/{review_id}/team/{user_id}/", { ...ofMember, body: { role: given } }));
      if (act === "lead") return answered(api.POST("/api/reviews/{review_id}/team/{user_id}/lead/", ofMember));
      if (act === "remove") return answered(api.DELETE("/api/reviews/{review_id}/team/{user_id}/", ofMember));
      return answered(
        api.DELETE("/api/reviews/{review_id}/invitations/{place_id}/", {
          params: { path: { review_id: review.id, place_id: member } },
        }),
      );
    },
    onSettled: refresh,
  });
  const leads = review.role === "lead";
  const field = (name: keyof typeof about) => ({
    value: about[name],
    onChange: (e: { currentTarget: { value: string } }) => {
      const value = e.currentTarget.value;
      setAbout((a) => ({ ...a, [name]: value }));
    },
    onBlur: () => {
      if (about[name] !== (review[name] ?? "") && (name !== "title" || about.title.trim()))
        change.mutate({ [name]: about[name] });
    },
  });
  return (
    <section>
      <h3 className="part">{strings.thisReview}</h3>
      {review.imported && (
        <p className="quiet">
          {strings.importedExported}
          {review.imported.exported_by && strings.by(review.imported.exported_by)}
          {review.imported.exported_at ? day(review.imported.exported_at) : strings.onAnotherInstallation}
          {strings.itWasRecheckedHereFindings}
        </p>
      )}
      <div className="fields">
        <TextInput
          label={strings.building}
          maxLength={120}
          {...field("title")}
          error={about.title.trim() ? undefined : strings.enterAName}
        />
        <TextInput label={strings.place} maxLength={120} {...field("place")} />
        <TextInput label={strings.client} maxLength={120} {...field("client")} />
      </div>
      <Textarea
        label={strings.scopeAsPrintedInThe}
        mt="xs"
        maw={760}
        autosize
        minRows={2}
        maxLength={2000}
        {...field("description")}
      />
      <Problems error={change.error} title={strings.nothingWasChanged} />
      <div className={css["wrapRow"]}>
        <Button variant="default" component="a" href={`/api/reviews/${review.id}/export/`} download>
          {strings.exportPlumbJson}
        </Button>
        <Button
          variant="default"
          onClick={() => {
            copy.copy(window.location.href);
          }}
        >
          {copy.copied ? strings.copied : strings.copyLink}
        </Button>
        {leads && (
          <Button
            variant="default"
            onClick={() => {
              change.mutate({ status: review.status === "closed" ? "open" : "closed" });
            }}
          >
            {review.status === "closed" ? strings.reopenTheReview : strings.closeTheReview}
          </Button>
        )}
      </div>
      <h3 className="part">{strings.team}</h3>
      <table className={`plain ${css["width"] ?? ""}`}>
        <tbody>
          {review.team.map((m) => (
            <tr key={m.id}>
              <td>
                {m.name} {!m.active && <span className="quiet">{strings.accountClosed}</span>}
              </td>
              <td className="quiet">{m.firm}</td>
              <td>
                {leads ? (
                  <select
                    aria-label={strings.roleOf(m.name)}
                    value={m.role}
                    onChange={(e) => {
                      team.mutate({ act: "role", member: m.id, role: e.currentTarget.value as Role });
                    }}
                  >
                    {Object.keys(ROLES).map((r) => (
                      <option key={r}>{r}</option>
                    ))}
                  </select>
                ) : (
                  m.role
                )}
              </td>
              {leads && (
                <td>
                  {m.id !== me && (
                    <>
                      {m.role !== "lead" && (
                        <button
                          type="button"
                          className="linklike"
                          onClick={() => {
                            team.mutate({ act: "lead", member: m.id });
                          }}
                        >
                          {strings.makeLead}
                        </button>
                      )}{" "}
                      <button
                        type="button"
                        className="linklike"
                        onClick={() => {
                          team.mutate({ act: "remove", member: m.id });
                        }}
                      >
                        {strings.remove}
                      </button>
                    </>
                  )}
                </td>
              )}
            </tr>
          ))}
          {review.invited.map((p) => (
            <tr key={`invited ${String(p.id)}`} className="quiet">
              <td>{p.email}</td>
              <td>{strings.invitedValidUntil(day(p.expires_at))}</td>
              <td>{p.role}</td>
              <td>
                <button
                  type="button"
                  className="linklike"
                  onClick={() => {
                    team.mutate({ act: "withdraw", member: p.id });
                  }}
                >
                  {strings.withdraw}
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Problems error={team.error} title={strings.nothingWasChanged} />
      {leads && (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            add.mutate();
          }}
          className={css["wrapRow2"]}
        >
          <TextInput
            aria-label={strings.eMailAddressOfA}
            placeholder={strings.memberAddressExample}
            w={250}
            value={email}
            onChange={(e) => {
              setEmail(e.currentTarget.value);
            }}
            required
            type="email"
          />
          <Select
            aria-label={strings.roleOfTheNewMember}
            w={260}
            allowDeselect={false}
            value={role}
            data={Object.entries(ROLES).map(([value, label]) => ({ value, label }))}
            onChange={(v) => {
              setRole((v ?? "reviewer") as Role);
            }}
          />
          <Button type="submit" variant="default" loading={add.isPending}>
            {strings.add}
          </Button>
        </form>
      )}
      {add.data?.invited && (
        <p className="quiet" role="status">
          {strings.isInvitedALinkHas(add.data.invited.email)}
        </p>
      )}
      <Problems error={add.error} title={strings.theMemberWasNotAdded} />
    </section>
  );
}
