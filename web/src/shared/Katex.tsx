import katex from "katex";
import "katex/dist/katex.min.css";

export default function Katex({ tex, block }: { tex: string; block: boolean }) {
  const html = katex.renderToString(tex, {
    displayMode: block,
    throwOnError: false,
    strict: "ignore",
    output: "htmlAndMathml",
  });
  return <span dangerouslySetInnerHTML={{ __html: html }} />;
}
