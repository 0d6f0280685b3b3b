import { Alert, Button, Dialog } from "@mui/material";
import type { Kept } from "../api/kept";

interface ConflictsProps<State, Doc> {
  kept: Kept<State, Doc>;
  what: string;
  /** Keeps the person's own state as something new, so that both stand. */
  keepBoth?: (mine: Doc) => void;
}

/** What is asked when another tab saved first, or when a deletion takes more with it. */
export function Conflicts<State, Doc>({ kept, what, keepBoth }: ConflictsProps<State, Doc>) {
  const { conflict, asksRelease } = kept;
  return (
    <>
      {conflict ? (
        <Alert
          severity="warning"
          role="alert"
          action={
            <span className="alert-actions">
              <Button onClick={kept.takeTheirs}>Take the other {what}</Button>
              <Button onClick={kept.keepMine}>Keep mine</Button>
              {keepBoth ? (
                <Button
                  onClick={() => {
                    keepBoth(conflict.mine);
                    kept.takeTheirs();
                  }}
                >
                  Keep both
                </Button>
              ) : null}
            </span>
          }
        >
          {conflict.detail} Keeping yours is one step that undo takes back.
        </Alert>
      ) : null}
      <Dialog open={asksRelease !== null} onClose={asksRelease?.no} aria-labelledby="release-title">
        <div className="sheet">
          <h2 id="release-title">This takes something out of your trips</h2>
          <p>{asksRelease?.detail}</p>
          <p>Each trip keeps a step that undo takes back.</p>
          <div className="row">
            <Button variant="contained" color="error" onClick={asksRelease?.yes}>
              Take it out
            </Button>
            <Button onClick={asksRelease?.no}>Leave everything</Button>
          </div>
        </div>
      </Dialog>
    </>
  );
}
