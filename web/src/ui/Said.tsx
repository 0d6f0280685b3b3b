import type { HTMLAttributes, ReactNode } from "react";
import "./said.css";

type Heard = "onPointerEnter" | "onPointerLeave" | "onFocus" | "onBlur";

interface Props extends Pick<HTMLAttributes<HTMLDivElement>, Heard> {
  /** What went wrong, what only has to be decided, or what is good to know. */
  kind: "wrong" | "ask" | "note";
  children: ReactNode;
  /** What can be done about it, beside the sentence. */
  doing?: ReactNode;
  onClose?: (() => void) | undefined;
}

/** A sentence at the place that it is about, behind a rule. */
export function Said({ kind, children, doing, onClose, ...heard }: Props) {
  return (
    <div role={kind === "note" ? "status" : "alert"} className={`said ${kind}`} {...heard}>
      <div className="said-words">{children}</div>
      {doing === undefined && onClose === undefined ? null : (
        <div className="said-doing">
          {doing}
          {onClose === undefined ? null : (
            <button type="button" className="plain link" onClick={onClose}>
              Close
            </button>
          )}
        </div>
      )}
    </div>
  );
}
