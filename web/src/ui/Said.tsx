import type { ReactNode } from "react";
import "./said.css";

interface Props {
  /** What went wrong, what only has to be decided, or what is good to know. */
  kind: "wrong" | "ask" | "note";
  children: ReactNode;
  /** What can be done about it, beside the sentence. */
  doing?: ReactNode;
  onClose?: (() => void) | undefined;
}

/** A sentence at the place that it is about, behind a rule. */
export function Said({ kind, children, doing, onClose }: Props) {
  return (
    <div role={kind === "note" ? "status" : "alert"} className={`said ${kind}`}>
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
