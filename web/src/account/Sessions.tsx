import { Button } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { accounts } from "../session/accounts";
import { moment } from "../shared/dates";
import { Problems } from "../shared/Problems";
import { strings } from "./strings";

interface OwnSession {
  id: number;
  user_agent: string;
  ip: string;
  created_at: number;
  is_current: boolean;
}

/** The browsers that a person is signed in with; each is ended from here. */
export function Sessions() {
  const client = useQueryClient();
  const sessions = useQuery({
    queryKey: ["sessions"],
    queryFn: () => accounts<OwnSession[]>("GET", "auth/sessions"),
  });
  const end = useMutation({
    mutationFn: (ids: number[]) => accounts("DELETE", "auth/sessions", { sessions: ids }),
    onSuccess: () => client.invalidateQueries({ queryKey: ["sessions"] }),
  });
  const sessionList = sessions.data?.data ?? [];
  const others = sessionList.filter((s) => !s.is_current).map((s) => s.id);
  return (
    <>
      <table className="plain">
        <tbody>
          {sessionList.map((s) => (
            <tr key={s.id}>
              <td>{browserOf(s.user_agent)}</td>
              <td className="quiet">{s.ip}</td>
              <td className="quiet">{strings.sinceMoment(moment(new Date(s.created_at * 1000).toISOString()))}</td>
              <td>
                {s.is_current ? (
                  <span className="quiet">{strings.thisSession}</span>
                ) : (
                  <button
                    type="button"
                    className="linklike"
                    onClick={() => {
                      end.mutate([s.id]);
                    }}
                  >
                    {strings.end}
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {others.length > 0 && (
        <Button
          variant="default"
          mt="xs"
          onClick={() => {
            end.mutate(others);
          }}
        >
          {strings.endAllOtherSessions}
        </Button>
      )}
      <Problems error={sessions.error ?? end.error} title={strings.theSessionWasNotEnded} />
    </>
  );
}

const BROWSERS: [RegExp, string][] = [
  [/Firefox\//, strings.firefox],
  [/Edg\//, strings.edge],
  [/Chrom(e|ium)\//, strings.chromiumOrChrome],
  [/Safari\//, strings.safari],
];
const SYSTEMS: [RegExp, string][] = [
  [/Windows/, strings.windows],
  [/iPhone|iPad/, "iOS"],
  [/Mac OS/, "macOS"],
  [/Android/, strings.android],
  [/Linux/, strings.linux],
];

/** A browser by what it says of itself, in words. */
export function browserOf(agent: string): string {
  const first = (of: [RegExp, string][]) => of.find(([pattern]) => pattern.test(agent))?.[1];
  const [browser, system] = [first(BROWSERS), first(SYSTEMS)];
  return browser ? `${browser}${system ? strings.on(system) : ""}` : agent.slice(0, 40) || "unknown";
}
