import type { QueryKey } from "@tanstack/react-query";

export interface Versioned {
  version: number;
  can_undo: boolean;
  can_redo: boolean;
  /** When the step that undo takes back was made; likewise of redo. */
  undo_at: string | null;
  redo_at: string | null;
}

export interface KeptSource<State extends Versioned, Doc> {
  key: QueryKey;
  load: () => Promise<State>;
  save: (version: number, doc: Doc) => Promise<State>;
  step: (version: number, by: -1 | 1) => Promise<State>;
  docOf: (state: State) => Doc;
  withDoc: (state: State, doc: Doc) => State;
  /** Told of each edit at once, before the page draws it. */
  onEdit?: (state: State) => void;
  /** Told of each answer to a save or a step: other documents may have gone along. */
  onSaved?: (state: State, kind: "save" | "step") => void;
  /** What a save lets go first: the answer to the edit matters more than its keeping. */
  before?: () => Promise<void>;
}

export interface Conflict<State, Doc> {
  /** Mine is what the page shows; it goes on being edited until someone decides. */
  mine: Doc;
  theirs: State;
  /** What both changed. */
  clashes: readonly string[];
  detail: string;
}

/** Kept; on its way; only here, on this page and in this browser; only in this tab. */
export type Keeping = "kept" | "going" | "here" | "tab";

export interface View<State, Doc> {
  error: Error | null;
  conflict: Conflict<State, Doc> | null;
  keeping: Keeping;
}
