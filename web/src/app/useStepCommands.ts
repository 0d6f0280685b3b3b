import { useMemo } from "react";
import type { Kept } from "../api/kept";
import { useCommands } from "./commands";

/** Undo and redo of what a place keeps, as commands; says which of them there are. */
export function useStepCommands<State extends { can_undo: boolean; can_redo: boolean }, Doc>(
  owner: string,
  where: string,
  { state, undo, redo }: Kept<State, Doc>,
): { undo: boolean; redo: boolean } {
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
  return { undo: canUndo, redo: canRedo };
}
