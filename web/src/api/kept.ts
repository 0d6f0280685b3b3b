import { useQuery, useQueryClient, type QueryKey } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { Refused, Unreachable } from "./client";

interface Versioned {
  version: number;
  can_undo: boolean;
  can_redo: boolean;
}

export interface KeptSource<State extends Versioned, Doc> {
  key: QueryKey;
  load: () => Promise<State>;
  save: (version: number, doc: Doc, release: boolean) => Promise<State>;
  step: (version: number, by: -1 | 1, release: boolean) => Promise<State>;
  docOf: (state: State) => Doc;
  withDoc: (state: State, doc: Doc) => State;
  /** Told of each edit at once, before the page draws it. */
  onEdit?: (state: State) => void;
  /** What a save lets go first: the answer to the edit matters more than its keeping. */
  before?: () => Promise<void>;
}

export interface Conflict<State, Doc> {
  mine: Doc;
  theirs: State;
  detail: string;
  /** Mine is what the page shows; it goes on being edited until someone decides. */
  shown: boolean;
}

export interface Kept<State, Doc> {
  state: State | undefined;
  error: Error | null;
  conflict: Conflict<State, Doc> | null;
  /** A refusal that asks back: units that trips use would go. */
  asksRelease: { detail: string; yes: () => void; no: () => void } | null;
  edit: (change: (doc: Doc) => Doc) => void;
  undo: () => void;
  redo: () => void;
  takeTheirs: () => void;
  keepMine: () => void;
  dismiss: () => void;
  retry: () => void;
  /** Resolves when everything edited so far has been sent. */
  settled: () => Promise<void>;
}

const BEFORE_SAVE_MS = 400;
const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));
const unsavedKey = (key: QueryKey) => `tumbrel.unsaved.${key.join(".")}`;

interface Note<Doc> {
  version: number;
  doc: Doc;
}

/** What an earlier page could not save; null when what the browser kept cannot be read. */
function noteOf<Doc>(text: string): Note<Doc> | null {
  try {
    return JSON.parse(text) as Note<Doc>;
  } catch {
    return null;
  }
}

/**
 * A kept document edited optimistically. Saves go one after the other with the version they were
 * made on; what is not saved yet survives a reload in the browser; a stale save asks back.
 */
export function useKept<State extends Versioned, Doc>(
  source: KeptSource<State, Doc>,
): Kept<State, Doc> {
  const cache = useQueryClient();
  const { key, load, save, step, docOf, withDoc } = source;
  const query = useQuery({ queryKey: key, queryFn: load, staleTime: Infinity });
  const [error, setError] = useState<Error | null>(null);
  const [conflict, setConflict] = useState<Conflict<State, Doc> | null>(null);
  const [asksRelease, setAsks] = useState<Kept<State, Doc>["asksRelease"]>(null);
  const chain = useRef<Promise<void>>(Promise.resolve());
  const queued = useRef(0);
  const version = useRef<number | null>(null);
  const halted = useRef(false);

  const current = useCallback(() => cache.getQueryData<State>(key), [cache, key]);
  const show = useCallback(
    (state: State) => {
      version.current = state.version;
      cache.setQueryData(key, state);
      localStorage.removeItem(unsavedKey(key));
    },
    [cache, key],
  );

  const enqueue = useCallback(
    (send: (version: number, release: boolean) => Promise<State>, mine: Doc | null) => {
      queued.current += 1;
      const attempt = async (release: boolean): Promise<void> => {
        const state = current();
        if (state === undefined || halted.current) return;
        const saved = await send(Math.max(version.current ?? 0, state.version), release);
        version.current = saved.version;
        if (queued.current === 1) show(saved);
        setError(null);
      };
      chain.current = chain.current
        .then(() => attempt(false))
        .catch((problem: unknown) => {
          if (problem instanceof Refused && problem.is("in_use")) {
            setAsks({
              detail: problem.message,
              yes: () => {
                setAsks(null);
                queued.current += 1;
                chain.current = attempt(true)
                  .then(() => cache.invalidateQueries())
                  .catch(setProblem)
                  .finally(() => {
                    queued.current -= 1;
                  });
              },
              no: () => {
                setAsks(null);
                void cache.invalidateQueries({ queryKey: key });
              },
            });
          } else if (problem instanceof Refused && problem.is("stale")) {
            halted.current = true;
            const theirs = problem.problem.current as unknown as State;
            const held = mine ?? docOf(current() ?? theirs);
            setConflict({ mine: held, theirs, detail: problem.message, shown: true });
          } else setProblem(problem);
        })
        .finally(() => {
          queued.current -= 1;
        });
      function setProblem(problem: unknown) {
        setError(problem instanceof Error ? problem : new Error(String(problem)));
        if (problem instanceof Refused) void cache.invalidateQueries({ queryKey: key });
        else halted.current = problem instanceof Unreachable;
      }
    },
    [cache, current, docOf, key, show],
  );

  const edit = useCallback(
    (change: (doc: Doc) => Doc) => {
      const state = current();
      if (state === undefined) return;
      version.current = Math.max(version.current ?? 0, state.version);
      const doc = change(docOf(state));
      cache.setQueryData(key, { ...withDoc(state, doc), can_undo: true, can_redo: false });
      const edited = current();
      if (edited !== undefined) source.onEdit?.(edited);
      setConflict((old) => (old?.shown === true ? { ...old, mine: doc } : old));
      const note: Note<Doc> = { version: version.current, doc };
      localStorage.setItem(unsavedKey(key), JSON.stringify(note));
      enqueue(async (at, release) => {
        await Promise.race([source.before?.(), pause(BEFORE_SAVE_MS)]);
        return save(at, doc, release);
      }, doc);
    },
    [cache, current, docOf, enqueue, key, save, source, withDoc],
  );

  const go = useCallback(
    (by: -1 | 1) => enqueue((at, release) => step(at, by, release), null),
    [enqueue, step],
  );

  const takeTheirs = useCallback(() => {
    if (conflict) show(conflict.theirs);
    halted.current = false;
    setConflict(null);
  }, [conflict, show]);

  const keepMine = useCallback(() => {
    if (!conflict) return;
    halted.current = false;
    setConflict(null);
    show(conflict.theirs);
    edit(() => conflict.mine);
  }, [conflict, edit, show]);

  const retry = useCallback(() => {
    halted.current = false;
    setError(null);
    const state = current();
    if (state !== undefined) edit((doc) => doc);
  }, [current, edit]);

  // What an earlier page could not save is saved now; when someone else saved since, it asks.
  const loaded = query.data !== undefined;
  useEffect(() => {
    if (!loaded) return;
    const text = localStorage.getItem(unsavedKey(key));
    const state = current();
    if (text === null || state === undefined || queued.current > 0) return;
    localStorage.removeItem(unsavedKey(key));
    const note = noteOf<Doc>(text);
    if (note === null) return;
    if (note.version === state.version) void Promise.resolve().then(() => edit(() => note.doc));
    else if (JSON.stringify(note.doc) !== JSON.stringify(docOf(state))) {
      halted.current = true;
      const detail = "It was saved elsewhere while this page was closed. Yours is kept beside it.";
      chain.current = chain.current.then(() =>
        setConflict({ mine: note.doc, theirs: state, detail, shown: false }),
      );
    }
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once per loaded document
  }, [loaded]);

  return {
    state: query.data,
    error: error ?? query.error,
    conflict,
    asksRelease,
    edit,
    undo: useCallback(() => go(-1), [go]),
    redo: useCallback(() => go(1), [go]),
    takeTheirs,
    keepMine,
    dismiss: useCallback(() => setError(null), []),
    retry,
    settled: useCallback(() => chain.current, []),
  };
}
