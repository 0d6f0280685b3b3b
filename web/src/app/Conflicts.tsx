import { Button } from "@mui/material";
import { useState } from "react";
import type { Kept } from "../api/kept";
import { Said } from "../ui/Said";
import { useStays } from "../ui/useStays";
import { clashesText } from "../domain/clashes";

interface ConflictsProps<State, Doc> {
  kept: Kept<State, Doc>;
  what: string;
  /** Names of what is told by its key. */
  names?: ReadonlyMap<string, string>;
}

/** What is asked when another tab saved first, or when saving fails. */
export function Conflicts<State, Doc>({ kept, what, names }: ConflictsProps<State, Doc>) {
  const { conflict } = kept;
  return (
    <>
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
      <NotSaved kept={kept} />
    </>
  );
}

/** A save that failed. The page tries again by itself: it stays while it may be about to be pressed. */
function NotSaved<State, Doc>({ kept }: { kept: Kept<State, Doc> }) {
  const { error, state, keeping } = kept;
  const isThere = error !== null && state !== undefined;
  const { isShown, hold, letGo } = useStays(isThere);
  const [last, setLast] = useState("");
  if (error !== null && error.message !== last) setLast(error.message);
  const press = (act: () => void) => () => {
    letGo();
    act();
  };
  return isShown ? (
    <Said
      kind={isThere ? "wrong" : "note"}
      onClose={press(kept.dismiss)}
      doing={<Button onClick={press(kept.retry)}>Save again</Button>}
      {...hold}
    >
      {isThere || keeping !== "kept" ? last : "It is kept now."}
    </Said>
  ) : null;
}
