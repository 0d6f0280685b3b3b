import { Button } from "@mui/material";
import type { MouseEvent } from "react";
import type { Drafting } from "./useTrial";

/** What a change that is not kept yet gains and costs, and how it is kept or left. */
export function DraftFoot({ drafting }: { drafting: Drafting }) {
  const { pending, difference, headline, late, keep, leave } = drafting;
  if (!pending) return null;
  // these buttons go with what they do: the keyboard stays in the strip
  const then = (act: () => void) => (event: MouseEvent<HTMLElement>) => {
    event.currentTarget.closest<HTMLElement>("[role=dialog]")?.focus();
    act();
  };
  return (
    <div className="draft-foot" role="group" aria-label="Not kept yet">
      <p role="status" className="label">
        {difference === null ? "Rehearsing it…" : difference}
        {late() && difference !== null ? " …" : ""}
        {headline === "" ? null : <span className="hint">With it: {headline}</span>}
      </p>
      <div className="row">
        <Button size="small" variant="contained" onClick={then(keep)} title="Ctrl+Enter">
          Keep
        </Button>
        <Button size="small" onClick={then(leave)}>
          Leave it
        </Button>
      </div>
    </div>
  );
}
