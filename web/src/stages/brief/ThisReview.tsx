import { Button, Select, Textarea, TextInput } from "@mantine/core";
import { useClipboard } from "@mantine/hooks";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api, type Review } from "../../shared/api/client";
import { useRefresh } from "../../shared/api/queries";
import { Problems } from "../../shared/Problems";

type Role = Review["team"][number]["role"];
const ROLES: Record<Role, string> = {
  lead: "lead: signs off, adds members",
  reviewer: "reviewer: rechecks and writes findings",
  submitter: "submitter: hands in, answers",
  reader: "reader: register and issued reports",
};

/** Whose review it is: what the report's cover says, the team, and its end. */
export function ThisReview({ review }: { review: Review }) {
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
      <h3 className="part">This review</h3>
      <div className="fields">
        <TextInput
          label="Building"
          maxLength={120}
          {...field("title")}
          error={about.title.trim() ? undefined : "Give a name"}
        />
        <TextInput label="Place" maxLength={120} {...field("place")} />
        <TextInput label="Client" maxLength={120} {...field("client")} />
      </div>
      <Textarea
        label="Scope, as the report gives it"
        mt="xs"
        maw={760}
        autosize
        minRows={2}
        maxLength={2000}
        {...field("description")}
      />
      <Problems error={change.error} title="Not changed" />
      <div style={{ display: "flex", gap: 8, flexWrap: "wrap", marginTop: 10 }}>
        <Button variant="default" component="a" href={`/api/reviews/${review.id}/export/`} download>
          Export .plumb.json
        </Button>
        <Button
          variant="default"
          onClick={() => {
            copy.copy(window.location.href);
          }}
        >
          {copy.copied ? "Copied" : "Copy link"}
        </Button>
        {leads && (
          <Button
            variant="default"
            onClick={() => {
              change.mutate({ status: review.status === "closed" ? "open" : "closed" });
            }}
          >
            {review.status === "closed" ? "Open the review again" : "Close the review"}
          </Button>
        )}
      </div>
      <h3 className="part">Team</h3>
      <table className="plain" style={{ width: "auto" }}>
        <tbody>
          {review.team.map((m) => (
            <tr key={m.id}>
              <td>{m.name}</td>
              <td className="quiet">{m.firm}</td>
              <td>{m.role}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {leads && (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            add.mutate();
          }}
          style={{ display: "flex", gap: 8, marginTop: 8, flexWrap: "wrap" }}
        >
          <TextInput
            aria-label="E-mail address of a new member"
            placeholder="e-mail address of a member"
            w={250}
            value={email}
            onChange={(e) => {
              setEmail(e.currentTarget.value);
            }}
            required
            type="email"
          />
          <Select
            aria-label="Role of the new member"
            w={260}
            allowDeselect={false}
            value={role}
            data={Object.entries(ROLES).map(([value, label]) => ({ value, label }))}
            onChange={(v) => {
              setRole((v ?? "reviewer") as Role);
            }}
          />
          <Button type="submit" variant="default" loading={add.isPending}>
            Add
          </Button>
        </form>
      )}
      <Problems error={add.error} title="Not added" />
    </section>
  );
}
