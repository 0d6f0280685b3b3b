import type { QueryClient } from "@tanstack/react-query";
import { isSame, merge, type Side } from "../domain/merge";
import { whenAnswered } from "./answers";
import { Refused, Unreachable } from "./client";
import type { Keeping, KeptSource, Versioned, View } from "./keeping";
import { dropNote, dropTaken, type Taken, takeNotes, writeNote } from "./notes";
import { hearTabs, tellTabs } from "./tabs";

type Op<Doc> = { kind: "save"; doc: Doc } | { kind: "step"; by: -1 | 1 };
type Halt = "conflict" | "refused";

const BEFORE_SAVE_MS = 400;
const FIRST_PAUSE_MS = 1_000;
const LONGEST_PAUSE_MS = 15_000;
const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));

/**
 * One kept document in this tab: edited optimistically, saved one step after the other with the
 * version that each was made on. What no save holds yet is noted in the browser; what the server
 * cannot take now is tried again; what was saved elsewhere is merged, or asked about.
 */
export class Keeper<State extends Versioned, Doc> {
  private base: State | null = null;
  private ops: Op<Doc>[] = [];
  private halt: Halt | null = null;
  private sending = false;
  private waiting: ReturnType<typeof setTimeout> | null = null;
  private pauseMs = FIRST_PAUSE_MS;
  private noted = true;
  private begun = false;
  private orphans: Taken<Doc>[] = [];
  /** The newest version that this tab knows of, shown or not. */
  private heard = 0;
  private readonly hearers = new Set<() => void>();
  private idle: (() => void)[] = [];
  private told: View<State, Doc> = {
    error: null,
    conflict: null,
    keeping: "kept",
  };

  constructor(
    private readonly cache: QueryClient,
    private source: KeptSource<State, Doc>,
  ) {
    hearTabs(source.key, (version) => this.heardOf(version));
    whenAnswered(() => {
      if (!(this.told.error instanceof Unreachable) || this.waiting === null) return;
      this.pauseMs = FIRST_PAUSE_MS;
      this.retry();
    });
  }

  /** From now on load, save and tell of edits by these. */
  use(source: KeptSource<State, Doc>): void {
    this.source = source;
  }

  // -- what the page reads ----------------------------------------------------------

  view = (): View<State, Doc> => this.told;

  subscribe = (hear: () => void): (() => void) => {
    this.hearers.add(hear);
    return () => this.hearers.delete(hear);
  };

  /** The document as the server has it now, with what is not saved yet laid over it. */
  load = async (): Promise<State> => {
    const state = await this.newest();
    tellTabs(this.source.key, state.version); // the tab that saved it may have gone without a word
    const shown = this.current();
    if (shown === undefined || this.isAllKept()) {
      this.base = state;
      return state;
    }
    return this.source.withDoc(state, this.source.docOf(shown));
  };

  /** What the server has; once more if something was saved while it was on its way. */
  private async newest(): Promise<State> {
    for (;;) {
      const before = this.heard;
      const state = await this.source.load();
      if (state.version < this.heard && this.heard > before) continue;
      this.heard = state.version;
      return state;
    }
  }

  /** Take up what an earlier page, or a tab that is gone, could not save. */
  async begin(): Promise<void> {
    if (this.begun) return;
    this.begun = true;
    this.base ??= this.current() ?? null;
    this.orphans = await takeNotes<Doc>(this.source.key);
    this.takeUp();
  }

  /** Resolves when everything edited so far was sent, or cannot be now. */
  settled = (): Promise<void> =>
    this.isBusy() ? new Promise((done) => this.idle.push(done)) : Promise.resolve();

  /** Something here is neither with the server nor in the browser's own store. */
  isFragile(): boolean {
    return this.ops.length > 0 && !this.noted;
  }

  // -- what the person does ---------------------------------------------------------

  edit = (change: (doc: Doc) => Doc): void => {
    const state = this.current();
    if (state === undefined) return;
    this.base ??= state;
    const doc = change(this.source.docOf(state));
    this.lay(state, doc);
    if (this.halt === "refused") {
      this.halt = null;
      this.ops = [];
    }
    this.ops.push({ kind: "save", doc });
    if (this.told.conflict !== null)
      this.told = { ...this.told, conflict: { ...this.told.conflict, mine: doc } };
    this.note();
    this.go();
  };

  step = (by: -1 | 1): void => {
    this.base ??= this.current() ?? null;
    const last = this.ops.at(-1);
    const here = this.halt !== null || this.waiting !== null;
    if (by < 0 && last?.kind === "save" && here && this.halt !== "conflict") this.takeBack();
    else {
      this.ops.push({ kind: "step", by });
      this.go();
    }
  };

  /** Try again now. */
  retry = (): void => {
    if (this.halt === "refused") this.halt = null;
    if (this.waiting !== null) clearTimeout(this.waiting);
    this.waiting = null;
    this.go();
  };

  /** Where both changed the same, take one side; everything else of both stays. */
  decide = (prefer: Side): void => {
    const { conflict } = this.told;
    if (conflict === null || this.base === null) return;
    const before = this.source.docOf(this.base);
    const theirs = this.source.docOf(conflict.theirs);
    const { merged } = merge(before, conflict.mine, theirs, prefer);
    this.told = { ...this.told, conflict: null };
    this.halt = null;
    this.goOn(conflict.theirs, merged);
  };

  dismiss = (): void => {
    if (this.halt === "refused") this.takeBack();
    this.tell({ error: null });
  };

  // -- saving -----------------------------------------------------------------------

  private go(): void {
    const op = this.ops[0];
    if (op === undefined || this.sending || this.halt !== null || this.waiting !== null) {
      this.tell({});
      return;
    }
    this.sending = true;
    this.tell({});
    void this.send(op)
      .then((saved) => this.saved(saved))
      .catch((problem: unknown) => this.failed(op, problem))
      .finally(() => {
        this.sending = false;
        if (this.ops.length > 0) this.go();
        else this.takeUp();
        this.catchUp();
        this.tell({});
      });
  }

  private async send(op: Op<Doc>): Promise<State> {
    const version = this.base?.version ?? 0;
    if (op.kind === "step") return this.source.step(version, op.by);
    await Promise.race([this.source.before?.(), pause(BEFORE_SAVE_MS)]);
    return this.source.save(version, op.doc);
  }

  private saved(state: State): void {
    const op = this.ops.shift();
    this.base = state;
    this.heard = Math.max(this.heard, state.version);
    this.pauseMs = FIRST_PAUSE_MS;
    this.told = { ...this.told, error: null };
    tellTabs(this.source.key, state.version);
    this.source.onSaved?.(state, op?.kind ?? "save");
    if (this.ops.length === 0) {
      this.cache.setQueryData(this.source.key, state);
      this.forget();
    } else this.note();
  }

  private failed(op: Op<Doc>, problem: unknown): void {
    const error = problem instanceof Error ? problem : new Error(String(problem));
    if (!(error instanceof Refused) || error.isPassing()) {
      this.told = { ...this.told, error };
      this.wait();
    } else if (error.is("stale")) {
      this.told = { ...this.told, error: null };
      this.ops = this.ops.filter((one) => one.kind === "save");
      this.rebase(error.problem.current as unknown as State, error.message);
    } else if (op.kind === "step") {
      this.ops.shift();
      this.told = { ...this.told, error };
    } else {
      this.halt = "refused";
      this.told = { ...this.told, error };
    }
  }

  private wait(): void {
    this.waiting = setTimeout(() => {
      this.waiting = null;
      this.go();
    }, this.pauseMs);
    this.pauseMs = Math.min(LONGEST_PAUSE_MS, this.pauseMs * 2);
  }

  // -- what was saved elsewhere -----------------------------------------------------

  private heardOf(version: number): void {
    this.heard = Math.max(this.heard, version);
    this.catchUp();
  }

  /** Show what another tab saved, once nothing here is unsaved; until then a save will ask. */
  private catchUp(): void {
    if (this.base === null || this.heard <= this.base.version || !this.isAllKept()) return;
    void this.cache.invalidateQueries({ queryKey: this.source.key });
  }

  private rebase(theirs: State, detail: string): void {
    const last = this.ops.at(-1);
    if (this.base === null || last?.kind !== "save") {
      this.base = theirs;
      this.showBase();
      return;
    }
    this.bring(this.source.docOf(this.base), last.doc, theirs, detail);
  }

  private bring(before: Doc, mine: Doc, theirs: State, detail: string): void {
    const { merged, clashes } = merge(before, mine, this.source.docOf(theirs));
    if (clashes.length === 0) {
      this.goOn(theirs, merged);
      return;
    }
    this.halt = "conflict";
    this.told = { ...this.told, conflict: { mine, theirs, clashes, detail } };
    this.ops = [{ kind: "save", doc: mine }];
  }

  /** Go on from their state with a document that holds both. */
  private goOn(theirs: State, doc: Doc): void {
    this.base = theirs;
    this.ops = [];
    if (isSame(doc, this.source.docOf(theirs))) {
      this.showBase();
      this.tell({});
      return;
    }
    this.lay(theirs, doc);
    this.ops = [{ kind: "save", doc }];
    this.note();
    this.go();
  }

  /** Take up the next note of a page or tab that is gone. */
  private takeUp(): void {
    const state = this.current();
    if (state === undefined || this.ops.length > 0 || this.halt !== null) return;
    const note = this.orphans.shift();
    if (note === undefined) return;
    dropTaken(note);
    this.base = state;
    const detail = "It was saved elsewhere while this page was closed.";
    if (isSame(note.doc, this.source.docOf(state))) this.takeUp();
    else {
      this.lay(state, note.doc);
      this.bring(note.base, note.doc, state, detail);
      if (this.told.conflict !== null) {
        // what clashes did so since the note began, not since what is kept now
        this.base = this.source.withDoc({ ...state }, note.base);
        this.noted = writeNote(this.source.key, note);
      }
      this.tell({});
    }
  }

  // -- the shown document, the note, and what is told -------------------------------

  private current(): State | undefined {
    return this.cache.getQueryData<State>(this.source.key);
  }

  private lay(state: State, doc: Doc): void {
    const now = {
      can_undo: true,
      can_redo: false,
      undo_at: new Date().toISOString(),
      redo_at: null,
    };
    const laid = { ...this.source.withDoc(state, doc), ...now };
    this.cache.setQueryData(this.source.key, laid);
    const shown = this.current();
    if (shown !== undefined) this.source.onEdit?.(shown);
  }

  private showBase(): void {
    if (this.base !== null) this.cache.setQueryData(this.source.key, this.base);
    this.forget();
    this.catchUp();
    this.tell({});
  }

  /** Undo what only stands here. */
  private takeBack(): void {
    if (this.halt === "refused") this.halt = null;
    this.ops.pop();
    const before = this.ops.findLast((one) => one.kind === "save");
    const state = this.current();
    if (before === undefined || state === undefined) this.showBase();
    else {
      this.lay(state, before.doc);
      this.note();
    }
    this.tell({ error: this.ops.length === 0 ? null : this.told.error });
  }

  private note(): void {
    const last = this.ops.findLast((one) => one.kind === "save");
    if (this.base === null || last === undefined) return;
    const { version } = this.base;
    const base = this.source.docOf(this.base);
    this.noted = writeNote(this.source.key, { version, base, doc: last.doc });
  }

  private forget(): void {
    dropNote(this.source.key);
    this.noted = true;
  }

  private isAllKept(): boolean {
    return this.ops.length === 0 && this.halt === null;
  }

  private isBusy(): boolean {
    return this.sending || (this.ops.length > 0 && this.halt === null && this.waiting === null);
  }

  private tell(part: Partial<View<State, Doc>>): void {
    let keeping: Keeping = "kept";
    if (this.ops.length > 0) keeping = this.isBusy() ? "going" : this.noted ? "here" : "tab";
    this.told = { ...this.told, ...part, keeping };
    for (const hear of [...this.hearers]) hear();
    if (this.isBusy()) return;
    const idle = this.idle;
    this.idle = [];
    for (const done of idle) done();
  }
}
