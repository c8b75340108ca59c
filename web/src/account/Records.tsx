import type { Schemas } from "../shared/api/client";
import { moment } from "../shared/dates";
import { Problems } from "../shared/Problems";
import { strings } from "./strings";

/** Who signed in, failed to, exported or downloaded something. */
export function Records({
  records,
  error,
  named = false,
}: {
  records: Schemas["NoteOfRecord"][] | undefined;
  error: unknown;
  named?: boolean;
}) {
  return (
    <>
      <Problems error={error} title={strings.thisCouldNotBeLoaded} />
      <table className="plain">
        <tbody>
          {records?.map((r, i) => (
            <tr key={i}>
              <td className="quiet">{moment(r.at)}</td>
              {named && <td>{r.person}</td>}
              <td>{r.kind}</td>
              <td className="quiet">{r.address}</td>
              <td className="quiet">{detailOf(r.detail)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

const detailOf = (detail: Record<string, unknown>) =>
  Object.entries(detail)
    .filter(([name]) => name !== "review")
    .map(([name, value]) => `${name} ${String(value)}`)
    .join(", ");
