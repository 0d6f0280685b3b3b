import {
  type KeyboardEvent,
  type ReactNode,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
} from "react";
import { STRIP_PX } from "../../scale/lanes";

interface Props {
  title: string;
  left: number;
  top: number;
  phone: boolean;
  onClose: () => void;
  /** What Escape does, where it is not closing. */
  onLeave?: () => void;
  /** What Ctrl+Enter does. */
  onKeep?: () => void;
  /** Stays in sight at the lower edge. */
  foot?: ReactNode;
  children: ReactNode;
}

/** A narrow sheet in the lane's gutter; on a phone it rises from the lower edge. Esc closes it. */
export function Strip(props: Props) {
  const { title, left, top, phone, onClose, onLeave, onKeep, foot, children } = props;
  const sheet = useRef<HTMLDivElement>(null);
  const [lift, setLift] = useState(0);
  useEffect(() => {
    const first = ["[aria-pressed=true]", "select", "button"]
      .map((what) => sheet.current?.querySelector<HTMLElement>(what))
      .find((found) => found != null);
    first?.focus();
  }, []);
  useLayoutEffect(() => {
    const element = sheet.current;
    const field = element?.parentElement;
    if (phone || !element || !field) return;
    setLift(Math.max(0, Math.min(top, top + element.offsetHeight - field.offsetHeight + 8)));
  }, [top, phone]);
  const onKey = (event: KeyboardEvent) => {
    if (event.key === "Escape") {
      event.stopPropagation();
      (onLeave ?? onClose)();
    } else if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) {
      event.preventDefault();
      onKeep?.();
    }
  };
  return (
    <div
      ref={sheet}
      role="dialog"
      tabIndex={-1}
      aria-label={title}
      className={phone ? "strip strip-phone" : "strip"}
      style={phone ? undefined : { left, top: top - lift, width: STRIP_PX }}
      onKeyDown={onKey}
    >
      <div className="strip-head">
        <strong className="label">{title}</strong>
        <button type="button" className="plain close" onClick={onClose} aria-label="Close">
          ×
        </button>
      </div>
      {children}
      {foot}
    </div>
  );
}
