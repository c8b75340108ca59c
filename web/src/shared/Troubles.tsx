import { ApiProblem, type Trouble } from "./api/client";

export function troublesOf(error: unknown): Trouble[] {
  if (error instanceof ApiProblem) return error.troubles;
  return error
    ? [{ path: "/", message: error instanceof Error ? error.message : "Something failed", remedy: "Try again." }]
    : [];
}

/** What is wrong and how to mend it, where it arises. */
export function Troubles({ error, title }: { error: unknown; title?: string }) {
  const troubles = troublesOf(error);
  if (troubles.length === 0) return null;
  return (
    <div className="trouble" role="alert">
      {title && <p style={{ fontWeight: 600 }}>{title}</p>}
      {troubles.map((t, i) => (
        <p key={i}>
          {t.message.charAt(0).toUpperCase() + t.message.slice(1)}. <span className="quiet">{t.remedy}</span>
        </p>
      ))}
    </div>
  );
}
