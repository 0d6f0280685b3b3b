import {
  type KeyboardEvent,
  type ReactNode,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
} from "react";
import { drawn } from "./opened";

interface Props {
  /** Of the drawing that it stands beside. */
  mark: string;
  title: string;
  wide?: boolean;
  onClose: () => void;
  children: ReactNode;
}

const WIDTH = { narrow: 330, wide: 560 };
const APART = 12;
const EDGE = 10;

/** A sheet beside the thing that it is about, joined to it; on a phone at the lower edge. Esc closes. */
export function Beside({ mark, title, wide = false, onClose, children }: Props) {
  const sheet = useRef<HTMLDivElement>(null);
  const [place, setPlace] = useState({ left: 0, top: 0 });
  const width = wide ? WIDTH.wide : WIDTH.narrow;
  useLayoutEffect(() => {
    const own = sheet.current;
    const page = own?.parentElement;
    const thing = drawn(page, mark);
    if (own == null || page == null || thing === undefined) return;
    const put = () => {
      const [box, frame] = [thing.getBoundingClientRect(), page.getBoundingClientRect()];
      const right = box.right - frame.left + APART;
      const left = box.left - frame.left - APART - width;
      setPlace({
        left:
          right + width <= frame.width - EDGE || left < EDGE
            ? Math.min(right, frame.width - width - EDGE)
            : left,
        top: Math.max(
          EDGE,
          Math.min(box.top, innerHeight - own.offsetHeight - EDGE) - frame.top - EDGE,
        ),
      });
    };
    put();
    if (typeof ResizeObserver === "undefined") return;
    const grown = new ResizeObserver(put); // pictures come later than the sheet
    grown.observe(own);
    return () => grown.disconnect();
  }, [mark, width]);
  useEffect(() => {
    const first = sheet.current?.querySelector<HTMLElement>(
      "input:not([type=checkbox]), select, .beside-fields button",
    );
    first?.focus();
    if (first instanceof HTMLInputElement) first.select();
  }, [mark]);
  useEffect(() => {
    // a press elsewhere on the shelf closes it; what lies over the page is not elsewhere
    const away = (event: PointerEvent) => {
      const at = event.target instanceof Element ? event.target : null;
      const inside = at?.closest(".beside, .MuiDialog-root, [data-unit]") != null;
      if (!inside && at?.closest(".kit-page") != null) onClose();
    };
    document.addEventListener("pointerdown", away);
    return () => document.removeEventListener("pointerdown", away);
  }, [onClose]);
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== "Escape") return;
    event.stopPropagation();
    onClose();
  };
  return (
    <div
      ref={sheet}
      role="dialog"
      aria-label={title}
      className="beside"
      style={{ left: Math.max(EDGE, place.left), top: place.top, width }}
      onKeyDown={onKeyDown}
    >
      <div className="beside-head">
        <h2>{title}</h2>
        <button type="button" className="plain close" aria-label="Close" onClick={onClose}>
          ×
        </button>
      </div>
      {children}
    </div>
  );
}
