import type { ReactNode } from "react";

/** Page before the sign-in: the line with its bob, and the form to sign in. */
export function SignedOutPage({ title, children }: { title: string; children: ReactNode }) {
  return (
    <main className="sign-in">
      <svg className="sign-in-line" viewBox="0 0 40 800" preserveAspectRatio="xMidYMin slice" aria-hidden>
        <rect x={9} width={22} height={800} fill="var(--band)" />
        <line x1={20} x2={20} y1={0} y2={420} stroke="var(--ink)" strokeWidth={1.6} />
        <path d="M14 414h12l-6 22z" fill="var(--ink)" />
      </svg>
      <div className="door">
        <h1>{title}</h1>
        {children}
      </div>
    </main>
  );
}
