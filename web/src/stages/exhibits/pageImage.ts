import { documentOf } from "./pdf";

/** Dots per pt that a page is drawn with, once for all crops of it. */
export const SHARPNESS = 2;
const KEPT = 3;
const drawn = new Map<string, Promise<HTMLCanvasElement>>();

/** A page of an exhibit as an image; the last few are kept. */
export function pageImage(exhibit: number, page: number): Promise<HTMLCanvasElement> {
  const key = `${String(exhibit)} ${String(page)}`;
  const known = drawn.get(key);
  if (known) return known;
  const image = documentOf(exhibit).then(async (document) => {
    const shown = await document.getPage(page);
    const viewport = shown.getViewport({ scale: SHARPNESS });
    const canvas = window.document.createElement("canvas");
    canvas.width = Math.floor(viewport.width);
    canvas.height = Math.floor(viewport.height);
    await shown.render({ canvas, viewport }).promise;
    return canvas;
  });
  image.catch(() => drawn.delete(key));
  drawn.set(key, image);
  for (const oldest of [...drawn.keys()].slice(0, Math.max(0, drawn.size - KEPT))) drawn.delete(oldest);
  return image;
}
