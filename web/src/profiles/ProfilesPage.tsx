import { Button, FileButton } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useSearchParams } from "react-router";
import { answered, api } from "../shared/api/client";
import { profilesQuery } from "../shared/api/queries";
import { Appearance } from "../shared/Appearance";
import { day } from "../shared/dates";
import { Problems } from "../shared/Problems";
import { EditedProfile } from "./EditedProfile";
import type { Profile } from "./profile";
import { strings } from "./strings";
import css from "./ProfilesPage.module.css";

/** How are the tables of a firm read? Answers that are proposed for its next ones. */
export default function ProfilesPage() {
  const client = useQueryClient();
  const profiles = useQuery(profilesQuery);
  const [search, setSearch] = useSearchParams();
  const opened = profiles.data?.find((p) => p.id === Number(search.get("profile")));
  const refresh = () => client.invalidateQueries({ queryKey: profilesQuery.queryKey });
  const open = (id: number | null) => {
    setSearch(id === null ? {} : { profile: String(id) });
  };
  const bring = useMutation({
    mutationFn: async (file: File) => {
      let document: Pick<Profile, "name" | "tables">;
      try {
        document = JSON.parse(await file.text()) as Pick<Profile, "name" | "tables">;
      } catch {
        throw new Error(strings.isNoProfile(file.name));
      }
      return answered(api.POST("/api/profiles/", { body: document }));
    },
    onSuccess: async (made) => {
      await refresh();
      open(made.id);
    },
  });
  return (
    <main className={`reviews ${css["page"] ?? ""}`}>
      <div className="reviews-head">
        <h1>{strings.profiles}</h1>
        <Link to="/">{strings.reviews}</Link>
        <Appearance />
        <FileButton
          accept=".json"
          onChange={(f) => {
            if (f) bring.mutate(f);
          }}
        >
          {(props) => (
            <Button variant="default" loading={bring.isPending} {...props}>
              {strings.importProfile}
            </Button>
          )}
        </FileButton>
      </div>
      <p className="quiet">{strings.whatTheyAre}</p>
      <Problems
        error={profiles.error ?? bring.error}
        title={bring.error ? strings.notImported : strings.couldNotBeLoaded}
      />
      {profiles.data?.length === 0 && (
        <div className="empty">
          <p>{strings.noneYet}</p>
        </div>
      )}
      <div className={css["panes"]}>
        <nav className={css["list"]} aria-label={strings.profiles}>
          {profiles.data?.map((p) => (
            <button
              key={p.id}
              type="button"
              className={p.id === opened?.id ? css["now"] : ""}
              aria-current={p.id === opened?.id ? "true" : undefined}
              onClick={() => {
                open(p.id);
              }}
            >
              <strong>{p.name}</strong>
              <span className="quiet">
                {[
                  strings.tables(p.tables.length),
                  ...(p.own ? [] : [strings.by(p.author)]),
                  strings.changedOn(day(p.updated_at)),
                ].join(" · ")}
              </span>
            </button>
          ))}
        </nav>
        {opened && (
          <EditedProfile
            key={`${String(opened.id)} ${String(opened.revision ?? 0)}`}
            profile={opened}
            onChanged={refresh}
            onDeleted={async () => {
              open(null);
              await refresh();
            }}
          />
        )}
      </div>
    </main>
  );
}
