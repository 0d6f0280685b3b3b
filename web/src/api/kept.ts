import { type QueryClient, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useSyncExternalStore } from "react";
import { Keeper } from "./keeper";
import type { KeptSource, Versioned, View } from "./keeping";

export type { Conflict, Keeping, KeptSource } from "./keeping";

export interface Kept<State, Doc> extends View<State, Doc> {
  state: State | undefined;
  edit: (change: (doc: Doc) => Doc) => void;
  undo: () => void;
  redo: () => void;
  /** Where both changed the same: the other's, or mine. Everything else of both stays. */
  takeTheirs: () => void;
  keepMine: () => void;
  dismiss: () => void;
  retry: () => void;
  /** Resolves when everything edited so far has been sent, or cannot be now. */
  settled: () => Promise<void>;
}

const keepers = new WeakMap<QueryClient, Map<string, { isFragile: () => boolean }>>();

/** The one keeper of a document in this tab; it goes on when the page is elsewhere. */
function keeperOf<State extends Versioned, Doc>(
  cache: QueryClient,
  source: KeptSource<State, Doc>,
): Keeper<State, Doc> {
  const known = keepers.get(cache) ?? new Map<string, { isFragile: () => boolean }>();
  keepers.set(cache, known);
  const name = source.key.join(".");
  const found = known.get(name) as Keeper<State, Doc> | undefined;
  if (found !== undefined) return found;
  const made = new Keeper(cache, source);
  known.set(name, made);
  return made;
}

/** Something edited would be lost with this tab: the server has not got it, nor has the browser. */
export function isAnythingFragile(cache: QueryClient): boolean {
  return [...(keepers.get(cache)?.values() ?? [])].some((one) => one.isFragile());
}

/** A kept document, edited optimistically; what cannot be saved now is noted and tried again. */
export function useKept<State extends Versioned, Doc>(
  source: KeptSource<State, Doc>,
): Kept<State, Doc> {
  const cache = useQueryClient();
  const keeper = keeperOf(cache, source);
  useEffect(() => {
    keeper.use(source);
  }, [keeper, source]);
  const query = useQuery({ queryKey: source.key, queryFn: keeper.load, staleTime: Infinity });
  const view = useSyncExternalStore(keeper.subscribe, keeper.view);
  const loaded = query.data !== undefined;
  useEffect(() => {
    if (loaded) void keeper.begin();
  }, [keeper, loaded]);
  return {
    ...view,
    error: view.error ?? query.error,
    state: query.data,
    edit: keeper.edit,
    undo: useCallback(() => keeper.step(-1), [keeper]),
    redo: useCallback(() => keeper.step(1), [keeper]),
    takeTheirs: useCallback(() => keeper.decide("theirs"), [keeper]),
    keepMine: useCallback(() => keeper.decide("mine"), [keeper]),
    dismiss: keeper.dismiss,
    retry: keeper.retry,
    settled: keeper.settled,
  };
}
