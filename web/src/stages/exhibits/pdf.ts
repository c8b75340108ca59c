import type { PDFDocumentProxy } from "pdfjs-dist";
import worker from "pdfjs-dist/build/pdf.worker.min.mjs?url";

const opened = new Map<number, Promise<PDFDocumentProxy>>();

/** The document of an exhibit, fetched in pieces as its pages are assessed; once for all pages. */
export function documentOf(exhibit: number): Promise<PDFDocumentProxy> {
  let document = opened.get(exhibit);
  if (!document) {
    document = import("pdfjs-dist").then((pdfjs) => {
      pdfjs.GlobalWorkerOptions.workerSrc = worker;
      // nothing of the document is run, and nothing is fetched from elsewhere for it
      return pdfjs.getDocument({ url: `/api/exhibits/${String(exhibit)}/drawn/`, enableXfa: false }).promise;
    });
    document.catch(() => opened.delete(exhibit));
    opened.set(exhibit, document);
  }
  return document;
}
