import { Autocomplete, Button } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { answered, api, type Submission } from "../../shared/api/client";
import { profilesQuery } from "../../shared/api/queries";
import { Problems } from "../../shared/Problems";
import { strings } from "./strings";
import css from "./ExhibitsPage.module.css";

/** The answers for the accepted tables of a submission, kept under a name for the next tables of the firm. */
export function KeepProfile({ submission }: { submission: Submission }) {
  const client = useQueryClient();
  const [opened, setOpened] = useState(false);
  const [name, setName] = useState("");
  const own = useQuery({ ...profilesQuery, enabled: opened }).data?.filter((p) => p.own) ?? [];
  const keep = useMutation({
    mutationFn: () =>
      answered(
        api.POST("/api/submissions/{submission_id}/profile/", {
          params: { path: { submission_id: submission.id } },
          body: { name: name.trim() },
        }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: profilesQuery.queryKey }),
  });
  if (submission.tables.length === 0) return null;
  if (keep.data)
    return (
      <p role="status">
        {strings.answersKept(keep.data.tables.length)}
        <Link to={`/profiles?profile=${String(keep.data.id)}`}>{strings.seeTheProfile}</Link>
      </p>
    );
  if (!opened)
    return (
      <p>
        <Button
          variant="default"
          size="compact-sm"
          onClick={() => {
            setOpened(true);
          }}
        >
          {strings.keepTheAnswers}
        </Button>
      </p>
    );
  return (
    <form
      className={css["keep"]}
      onSubmit={(e) => {
        e.preventDefault();
        keep.mutate();
      }}
    >
      <Autocomplete
        label={strings.nameOfTheProfile}
        placeholder={strings.firmWhoseTables}
        data={own.map((p) => p.name)}
        value={name}
        onChange={setName}
        maxLength={80}
      />
      <Button type="submit" color="dark" disabled={!name.trim()} loading={keep.isPending}>
        {strings.keep}
      </Button>
      <Link to="/profiles">{strings.profilesOfTables}</Link>
      <Problems error={keep.error} title={strings.notKept} />
    </form>
  );
}
