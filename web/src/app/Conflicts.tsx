import { Button } from "@mui/material";
import type { Kept } from "../api/kept";
import { LaterDialog } from "../ui/LaterDialog";
import { Said } from "../ui/Said";
import { clashesText } from "../domain/clashes";

interface ConflictsProps<State, Doc> {
  kept: Kept<State, Doc>;
  what: string;
  /** Names of what is told by its key. */
  names?: ReadonlyMap<string, string>;
}

/** What is asked when another tab saved first, when saving fails, or when a deletion takes more. */
export function Conflicts<State, Doc>({ kept, what, names }: ConflictsProps<State, Doc>) {
  const { conflict, asksRelease, error, state } = kept;
  return (
    <div className="kept-alerts">
      {conflict ? (
        <Said
          kind="ask"
          doing={
            <>
              <Button onClick={kept.takeTheirs}>Take the other {what}</Button>
              <Button onClick={kept.keepMine}>Keep mine</Button>
            </>
          }
        >
          {conflict.detail} Both changed {clashesText(conflict.clashes, names)}; everything else of
          both is kept. Keeping yours is one step that undo takes back.
        </Said>
      ) : null}
      {error !== null && state !== undefined ? (
        <Said
          kind="wrong"
          onClose={kept.dismiss}
          doing={<Button onClick={kept.retry}>Save again</Button>}
        >
          {error.message}
        </Said>
      ) : null}
      <LaterDialog
        open={asksRelease !== null}
        onClose={asksRelease?.no}
        aria-labelledby="release-title"
      >
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
      </LaterDialog>
    </div>
  );
}
