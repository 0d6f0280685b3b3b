import { createContext } from "react";
import type { Keeping } from "../api/kept";

/** Undo and redo of what a place keeps, and where that is kept. */
export interface Steps {
  what: string;
  keeping: Keeping;
  canUndo: boolean;
  canRedo: boolean;
  undo: () => void;
  redo: () => void;
}

/** Takes the steps of the open place, where these are its own; null: those of the trip. */
export const StepsContext = createContext<(steps: Steps | null) => void>(() => undefined);
