import { Button } from "@mui/material";
import type { Drafting } from "./useTrial";

/** What a change that is not kept yet gains and costs, and how it is kept or left. */
export function DraftFoot({ drafting }: { drafting: Drafting }) {
  const { pending, difference, headline, late, keep, leave } = drafting;
  if (!pending) return null;
  return (
    <div className="draft-foot" role="group" aria-label="Not kept yet">
      <p role="status" className="label">
        {difference === null ? "Rehearsing it…" : difference}
        {late && difference !== null ? " …" : ""}
        {headline === "" ? null : <span className="hint">With it: {headline}</span>}
      </p>
      <div className="row">
        <Button size="small" variant="contained" onClick={keep} title="Ctrl+Enter">
          Keep
        </Button>
        <Button size="small" onClick={leave}>
          Leave it
        </Button>
      </div>
    </div>
  );
}
