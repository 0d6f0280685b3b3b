import {
  type KeyboardEvent,
  type ReactNode,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
} from "react";

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
    const page = sheet.current?.parentElement;
    const thing = drawn(page, mark);
    if (page == null || thing === undefined) return;
    const [box, frame] = [thing.getBoundingClientRect(), page.getBoundingClientRect()];
    const right = box.right - frame.left + APART;
    const left = box.left - frame.left - APART - width;
    setPlace({
      left:
        right + width <= frame.width - EDGE || left < EDGE
          ? Math.min(right, frame.width - width - EDGE)
          : left,
      top: Math.max(EDGE, box.top - frame.top - EDGE),
    });
  }, [mark, width]);
  useEffect(() => {
    sheet.current?.querySelector<HTMLElement>("input, select, button")?.focus();
  }, [mark]);
  const close = () => {
    const thing = drawn(sheet.current?.parentElement, mark);
    onClose();
    thing?.focus();
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== "Escape") return;
    event.stopPropagation();
    close();
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
        <button type="button" className="plain close" aria-label="Close" onClick={close}>
          ×
        </button>
      </div>
      {children}
    </div>
  );
}

/** The drawing that a mark is of. */
function drawn(page: HTMLElement | null | undefined, mark: string): HTMLElement | undefined {
  const all = [...(page?.querySelectorAll<HTMLElement>("[data-unit]") ?? [])];
  return all.find((one) => one.dataset["unit"] === mark);
}
