import { useContext, useEffect, useMemo } from "react";
import type { Keeping, Kept } from "../api/kept";
import { useCommands } from "./commands";
import { StepsContext } from "./StepsContext";

/** Undo and redo of what a place keeps: as commands, and in the head while the place is open. */
export function useStepCommands<State extends { can_undo: boolean; can_redo: boolean }, Doc>(
  owner: string,
  where: string,
  { state, undo, redo, keeping }: Kept<State, Doc>,
): void {
  const offer = useContext(StepsContext);
  const canUndo = state?.can_undo === true;
  const canRedo = state?.can_redo === true;
  const commands = useMemo(
    () => [
      { name: `Undo ${where}`, keys: "Ctrl+Z", allowed: canUndo, run: undo },
      { name: `Redo ${where}`, keys: "Ctrl+Shift+Z", allowed: canRedo, run: redo },
    ],
    [where, canUndo, canRedo, undo, redo],
  );
  useCommands(owner, commands);
  useEffect(() => {
    offer({ what: `The ${owner}`, keeping, own: { canUndo, canRedo, undo, redo } });
    return () => offer(null);
  }, [offer, owner, keeping, canUndo, canRedo, undo, redo]);
}

/** The head tells where an open place's document is kept; undo stays that of what was done last. */
export function useKeepingOf(owner: string, keeping: Keeping): void {
  const offer = useContext(StepsContext);
  useEffect(() => {
    offer({ what: `The ${owner}`, keeping, own: null });
    return () => offer(null);
  }, [offer, owner, keeping]);
}
