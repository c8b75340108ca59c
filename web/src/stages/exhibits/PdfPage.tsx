import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../../shared/api/client";
import { pageQuery } from "../../shared/api/queries";
import { boxOfCell, regionLabel, shares, type Box } from "./places";
import { documentOf } from "./pdf";
import { strings } from "./strings";

type PageTable = Schemas["PageTable"];

interface Props {
  exhibit: number;
  page: number;
  width: number;
  /** the table that is assessed, and a cell of it, from 1 */
  sheet?: string;
  cell?: { row: number; column: string };
  titled: (kind: string) => string;
  onTable?: (sheet: string) => void;
  onRegion?: (label: string) => void;
  onPin?: (label: string) => void;
  /** a part that is dragged over, as shares of the page: left, top, right, bottom */
  onShare?: (box: Box) => void;
}

/** A page as it was submitted: its tables outlined, the one that is read and the cell that is assessed framed. */
export function PdfPage({ exhibit, page, width, sheet, cell, titled, onTable, onRegion, onPin, onShare }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const pageData = useQuery(pageQuery(exhibit, page));
  const [failed, setFailed] = useState("");
  const [scale, setScale] = useState(0);
  const [height, setHeight] = useState(Math.round(width * 1.3));
  const [drag, setDrag] = useState<Box | null>(null);

  useEffect(() => {
    let left = false;
    let stop: (() => void) | undefined;
    void documentOf(exhibit)
      .then(async (document) => {
        const drawn = await document.getPage(page);
        const target = canvas.current;
        if (left || !target) return;
        const fullSize = drawn.getViewport({ scale: 1 });
        const shown = width / fullSize.width;
        const sharp = window.devicePixelRatio || 1;
        const viewport = drawn.getViewport({ scale: shown * sharp });
        target.width = Math.floor(viewport.width);
        target.height = Math.floor(viewport.height);
        setScale(shown);
        setHeight(fullSize.height * shown);
        const task = drawn.render({ canvas: target, viewport });
        stop = () => {
          task.cancel();
        };
        await task.promise;
      })
      .catch((error: unknown) => {
        const cancelled = error instanceof Error && error.name === "RenderingCancelledException";
        if (!left && !cancelled) setFailed(error instanceof Error ? error.message : strings.itCannotBeShown);
      });
    return () => {
      left = true;
      stop?.();
    };
  }, [exhibit, page, width]);

  const at = (e: React.PointerEvent): [number, number] => {
    const frame = e.currentTarget.getBoundingClientRect();
    return [(e.clientX - frame.left) / scale, (e.clientY - frame.top) / scale];
  };
  const style = ([l, t, r, b]: Box) => ({
    left: l * scale,
    top: t * scale,
    width: (r - l) * scale,
    height: (b - t) * scale,
  });
  const tables: PageTable[] = pageData.data?.tables ?? [];
  const framed =
    cell && sheet
      ? boxOfCell(
          tables.find((t) => sheet.startsWith(t.sheet)),
          cell,
        )
      : null;
  return (
    <div className="pdf-page" style={{ width, height }}>
      <canvas ref={canvas} style={{ width, height }} aria-label={strings.page(page)} />
      {failed && <p className="problem">{strings.thePageCannotBeShown(failed)}</p>}
      <div
        className="pdf-over"
        onPointerDown={(e) => {
          if (!(onRegion ?? onShare) || !scale || (e.target as HTMLElement).closest("button")) return;
          const [x, y] = at(e);
          e.currentTarget.setPointerCapture(e.pointerId);
          setDrag([x, y, x, y]);
        }}
        onPointerMove={(e) => {
          if (!drag) return;
          const [x, y] = at(e);
          setDrag([drag[0], drag[1], x, y]);
        }}
        onPointerUp={() => {
          if (!drag) return;
          onShare?.(shares(drag, width / scale, height / scale));
          const label = regionLabel(page, drag);
          if (label.includes("region")) onRegion?.(label);
          else onPin?.(label);
          setDrag(null);
        }}
      >
        {tables.map((t) => {
          const accepted = pageData.data?.accepted.find((a) => a.sheet.startsWith(t.sheet));
          const now = sheet?.startsWith(t.sheet) ?? false;
          return (
            <div
              key={t.sheet}
              className={"pdf-table" + (now ? " now" : "") + (accepted ? " accepted" : "")}
              style={style(t.box as Box)}
            >
              <button
                type="button"
                onClick={() => {
                  onTable?.(t.sheet);
                }}
              >
                {accepted
                  ? strings.kindAndValues(titled(accepted.kind), accepted.claims)
                  : now
                    ? strings.beingRead
                    : strings.readThis}
              </button>
            </div>
          );
        })}
        {framed && <div className="pdf-cell" style={style(framed)} />}
        {drag && (
          <div
            className="pdf-drag"
            style={style([
              Math.min(drag[0], drag[2]),
              Math.min(drag[1], drag[3]),
              Math.max(drag[0], drag[2]),
              Math.max(drag[1], drag[3]),
            ])}
          />
        )}
      </div>
      {pageData.data && !pageData.data.has_text && (
        <p className="pdf-note">{tables.length ? strings.readOffThisImage : strings.thisPageIsAnImage}</p>
      )}
    </div>
  );
}

/** A small picture of a page, drawn when it comes into sight. */
export function Thumbnail({
  exhibit,
  page,
  now,
  count,
  onOpen,
}: {
  exhibit: number;
  page: number;
  now: boolean;
  count: number;
  onOpen: () => void;
}) {
  const button = useRef<HTMLButtonElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (now) button.current?.scrollIntoView({ block: "nearest" });
  }, [now]);
  useEffect(() => {
    const target = button.current;
    if (!target) return;
    const seen = new IntersectionObserver((entries) => {
      if (!entries.some((e) => e.isIntersecting)) return;
      seen.disconnect();
      void documentOf(exhibit)
        .then(async (document) => {
          const drawn = await document.getPage(page);
          if (!canvas.current) return;
          const viewport = drawn.getViewport({ scale: 96 / drawn.getViewport({ scale: 1 }).width });
          canvas.current.width = viewport.width;
          canvas.current.height = viewport.height;
          await drawn.render({ canvas: canvas.current, viewport }).promise;
        })
        // the page itself says why it cannot be drawn
        .catch(() => undefined);
    });
    seen.observe(target);
    return () => {
      seen.disconnect();
    };
  }, [exhibit, page]);
  return (
    <button
      ref={button}
      type="button"
      className={"thumbnail" + (now ? " now" : "")}
      aria-label={strings.pageWithTables(page, count ? strings.tables(count) : "")}
      aria-current={now ? "page" : undefined}
      onClick={onOpen}
    >
      {/* the size of a usual page until the page is drawn, so that the pages below do not move under the pointer */}
      <canvas ref={canvas} width={96} height={136} />
      <span>
        {page}
        {count > 0 && <b> ▦{count > 1 ? count : ""}</b>}
      </span>
    </button>
  );
}
