import { ApiProblem, type Problem } from "./api/client";
import { strings } from "./strings";
import css from "./Problems.module.css";

export function problemsOf(error: unknown): Problem[] {
  if (error instanceof ApiProblem) return error.problems;
  return error
    ? [
        {
          path: "/",
          message: error instanceof Error ? error.message : strings.somethingFailed,
          remedy: strings.tryAgain,
        },
      ]
    : [];
}

/** What is wrong and how to correct it, where it arises. */
export function Problems({ error, title }: { error: unknown; title?: string }) {
  const problems = problemsOf(error);
  if (problems.length === 0) return null;
  return (
    <div className="problem" role="alert">
      {title && <p className={css["strong"]}>{title}</p>}
      {problems.map((t, i) => (
        <p key={i}>
          {t.message.charAt(0).toUpperCase() + t.message.slice(1)}. <span className="quiet">{t.remedy}</span>
        </p>
      ))}
    </div>
  );
}
