import { useEffect, useRef } from "react";
import { pageImage, SHARPNESS } from "./pageImage";
import { fitted, type Box } from "./places";
import css from "./Crop.module.css";

interface Props {
  exhibit: number;
  page: number;
  /** what is shown of the page */
  box: Box;
  /** what is framed in it */
  framed?: Box | undefined;
  /** pixels at most */
  width: number;
  height: number;
  label: string;
}

/** A part of a page as it was submitted. */
export function Crop({ exhibit, page, box, framed, width, height, label }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [left, top, right, bottom] = box;
  const scale = fitted(box, width, height);
  useEffect(() => {
    let gone = false;
    void pageImage(exhibit, page)
      .then((image) => {
        const target = canvas.current;
        if (gone || !target) return;
        target.width = Math.ceil((right - left) * SHARPNESS);
        target.height = Math.ceil((bottom - top) * SHARPNESS);
        target.getContext("2d")?.drawImage(image, -left * SHARPNESS, -top * SHARPNESS);
      })
      // the page itself says why it cannot be drawn
      .catch(() => undefined);
    return () => {
      gone = true;
    };
  }, [exhibit, page, left, top, right, bottom]);
  return (
    <span
      className={css["crop"]}
      style={{ width: (right - left) * scale, aspectRatio: `${String(right - left)} / ${String(bottom - top)}` }}
    >
      <canvas ref={canvas} role="img" aria-label={label} />
      {framed && <span className={css["frame"]} style={within(framed, box)} />}
    </span>
  );
}

const AROUND = 1;

/** The place of a part of a box, in shares of it; a little larger than the part. */
function within(part: Box, [left, top, right, bottom]: Box) {
  const share = (length: number, of: number) => `${String((100 * length) / of)}%`;
  const [width, height] = [right - left, bottom - top];
  return {
    left: share(part[0] - left - AROUND, width),
    top: share(part[1] - top - AROUND, height),
    width: share(part[2] - part[0] + 2 * AROUND, width),
    height: share(part[3] - part[1] + 2 * AROUND, height),
  };
}
