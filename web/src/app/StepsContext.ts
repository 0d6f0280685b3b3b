import { createContext } from "react";
import type { Keeping } from "../api/kept";

/** A step back, and one forward. */
export interface Stepping {
  canUndo: boolean;
  canRedo: boolean;
  undo: () => void;
  redo: () => void;
  /** Where each is, in words. */
  undoes?: string | undefined;
  redoes?: string | undefined;
}

/** Undo and redo, and what is kept where. */
export interface Steps extends Stepping {
  what: string;
  keeping: Keeping;
}

/** What the head tells of an open place: where its document is kept, and steps of its own. */
export interface Offered {
  what: string;
  keeping: Keeping;
  /** Null: those of trip and kit. */
  own: Stepping | null;
}

/** Takes what the open place offers; null: nothing but the trip is kept there. */
export const StepsContext = createContext<(offered: Offered | null) => void>(() => undefined);
