import { lazy, Suspense } from "react";

const Katex = lazy(() => import("./Katex"));

/** An equation; the typesetting library is loaded when the first one is shown. */
export function Tex({ tex, block = false }: { tex: string; block?: boolean }) {
  return (
    <Suspense fallback={<span className="quiet">…</span>}>
      <Katex tex={tex} block={block} />
    </Suspense>
  );
}
