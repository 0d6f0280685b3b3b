import {
  type CSSProperties,
  type KeyboardEvent,
  type PointerEvent,
  useEffect,
  useRef,
  useState,
} from "react";

import "./grip.css";

interface Props {
  label: string;
  value: number;
  min: number;
  max: number;
  step: number;
  /** Of Page keys; ten steps unless told. */
  page?: number;
  /** What the value means, spoken and shown while it moves. */
  words: string;
  /** The value that a drag of so many px downwards comes to. */
  dragged: (px: number) => number;
  onMove: (value: number) => void;
  onKeep: () => void;
  onLeave: () => void;
  moving: boolean;
  className: string;
  style: CSSProperties;
  /** Names it for those who look for it. */
  mark?: string;
  /** A stop of Tab of its own; without it a command or a press leads there. */
  tabStop?: boolean;
}

/** A finger that only taps means what lies below. */
function tapBelow(x: number, y: number): void {
  const below = document.elementsFromPoint(x, y);
  below.find((one): one is HTMLElement => one.matches("[role=gridcell]"))?.click();
}

/**
 * An edge or a piece of work that is dragged or moved by keys: shown while it moves, one step when
 * it is let go or Enter is pressed, as before after Escape.
 */
export function Grip(props: Props) {
  const { label, value, min, max, step, page = step * 10, words, dragged, moving } = props;
  const { onMove, onKeep, onLeave, className, style, mark, tabStop = false } = props;
  const from = useRef<number | null>(null);
  const element = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (moving && from.current === null) element.current?.scrollIntoView({ block: "nearest" });
  }, [moving, value]);
  const held = (wanted: number) => Math.min(max, Math.max(min, wanted));
  const [flipped, setFlipped] = useState(false);
  const move = (wanted: number) => {
    const next = held(wanted);
    if (next === value) return;
    if (!moving) {
      const box = element.current?.getBoundingClientRect();
      setFlipped(box !== undefined && box.left > innerWidth * 0.6);
    }
    onMove(next);
  };
  const onKey = (event: KeyboardEvent) => {
    const by: Record<string, number | undefined> = {
      ArrowDown: value + step,
      ArrowRight: value + step,
      ArrowUp: value - step,
      ArrowLeft: value - step,
      PageDown: value + page,
      PageUp: value - page,
      Home: min,
      End: max,
    };
    const to = by[event.key];
    if (to !== undefined) move(to);
    else if (event.key === "Escape" && moving) onLeave();
    else if (event.key === "Enter") onKeep();
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div
      ref={element}
      role="slider"
      tabIndex={tabStop ? 0 : -1}
      aria-label={label}
      aria-orientation="vertical"
      aria-valuemin={min}
      aria-valuemax={max}
      aria-valuenow={value}
      aria-valuetext={words}
      className={moving ? `${className} moving` : className}
      style={style}
      data-grip={mark}
      onKeyDown={onKey}
      onBlur={() => {
        if (moving && from.current === null) onKeep();
      }}
      onPointerDown={(event: PointerEvent<HTMLDivElement>) => {
        from.current = event.clientY;
        event.currentTarget.setPointerCapture(event.pointerId);
        event.currentTarget.focus();
        event.preventDefault();
        event.stopPropagation();
      }}
      onPointerMove={(event) => {
        if (from.current === null) return;
        event.stopPropagation();
        move(dragged(event.clientY - from.current));
      }}
      onPointerUp={(event) => {
        from.current = null;
        if (moving) onKeep();
        else if (event.pointerType === "touch") tapBelow(event.clientX, event.clientY);
      }}
      onPointerCancel={() => {
        from.current = null;
        onLeave();
      }}
      onClick={(event) => event.stopPropagation()}
    >
      <span className="grip-bar" />
      {moving ? (
        <span className={flipped ? "grip-words flipped label" : "grip-words label"}>{words}</span>
      ) : null}
    </div>
  );
}
