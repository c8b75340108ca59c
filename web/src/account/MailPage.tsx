import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { answered, api } from "../shared/api/client";
import { Problems } from "../shared/Problems";
import "./account.css";
import { strings } from "./strings";

/** The mail that this demo would have sent: links work, nobody gets it. */
export default function MailPage() {
  const mail = useQuery({
    queryKey: ["mail"],
    queryFn: () => answered(api.GET("/api/mail/")),
    refetchInterval: 3000,
    retry: false,
  });
  return (
    <main className="account">
      <header className="reviews-head">
        <h1>{strings.mailOfTheDemo}</h1>
        <span className="quiet">{strings.shownHereInsteadOfBeing}</span>
        <Link to="/">{strings.toTheReviews}</Link>
      </header>
      <Problems error={mail.error} title={strings.mailIsNotShownHere} />
      {mail.data?.length === 0 && <p className="quiet">{strings.noMailYetInviteSomebody}</p>}
      {mail.data?.map((m, i) => (
        <article key={i} className="mail">
          <h2>{m.subject}</h2>
          <p className="quiet">{strings.to(m.to, m.at)}</p>
          <pre>{linked(m.text)}</pre>
        </article>
      ))}
    </main>
  );
}

/** A text with the addresses in it as links. */
const linked = (text: string) =>
  text.split(/(https?:\/\/\S+)/).map((part, i) => {
    if (i % 2 === 0) return part;
    const at = new URL(part);
    return at.host === window.location.host ? (
      <Link key={i} to={at.pathname}>
        {part}
      </Link>
    ) : (
      <span key={i}>{part}</span>
    );
  });
