import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useMemo, useState } from "react";
import { variants } from "../../api/variants";
import { useTripHere } from "../../app/TripContext";
import { clockOf } from "../../domain/clock";
import type { VariantCompared } from "../../domain/types";
import { comparisonSentence, differencesOf } from "../../domain/variants";
import { Differences } from "./Differences";
import { LedgerTable } from "./LedgerTable";
import { StartingSet } from "./StartingSet";
import { VariantBoard } from "./VariantBoard";
import { VariantList } from "./VariantList";
import "./variants.css";

const NOW = 0;
const MOST = 4;

/** What one gets for what one gives up: states of the plan side by side. */
export function VariantsPlace() {
  const { id, kept } = useTripHere();
  const cache = useQueryClient();
  const [chosen, setChosen] = useState<readonly number[]>([NOW]);
  const list = useQuery(variants.list(id));
  const lines = useMemo(() => list.data ?? [], [list.data]);
  const there = chosen.filter((one) => one === NOW || lines.some((line) => line.id === one));
  const version = kept.state?.version ?? 0;
  const comparison = useQuery({
    ...variants.compared(id, there, version),
    placeholderData: (before) => before,
    gcTime: 60_000,
  });
  const states = comparison.data ?? [];
  const refresh = useCallback(
    () => cache.invalidateQueries({ queryKey: ["variants", id] }),
    [cache, id],
  );
  const toggle = (one: number) =>
    setChosen((old) =>
      old.includes(one) ? old.filter((each) => each !== one) : [...old, one].slice(-MOST),
    );
  return (
    <main className="page variants-page">
      <Compared states={states} busy={comparison.isFetching} error={comparison.error} />
      <aside className="variants-side" aria-label="Variants">
        <VariantList
          lines={lines}
          chosen={there}
          onToggle={toggle}
          onChanged={refresh}
          most={MOST}
        />
        <StartingSet
          onMade={(made) => {
            void refresh();
            setChosen((old) => [...old.filter((one) => one !== made), made].slice(0, MOST));
          }}
        />
        {list.error === null ? null : <p role="alert">{list.error.message}</p>}
      </aside>
    </main>
  );
}

interface ComparedProps {
  states: readonly VariantCompared[];
  busy: boolean;
  error: Error | null;
}

function Compared({ states, busy, error }: ComparedProps) {
  const names = useMemo(() => states.map((one) => one.variant?.name ?? "the plan now"), [states]);
  const clocks = useMemo(
    () =>
      states.map(({ state }) => clockOf(state.document.trip.time_zone, state.rehearsal.start_utc)),
    [states],
  );
  const differences = useMemo(() => differencesOf(states), [states]);
  const [first] = states;
  return (
    <section className="variants-main" aria-label="Comparison" aria-busy={busy}>
      <h1>{comparisonSentence(states, names)}</h1>
      {error === null ? null : <p role="alert">{error.message}</p>}
      {first === undefined ? null : (
        <>
          <LedgerTable
            states={states}
            names={names}
            when={(place, ms) => clocks[place]?.full(ms) ?? ""}
          />
          <VariantBoard states={states} names={names} differences={differences} />
          <Differences states={states} names={names} differences={differences} />
        </>
      )}
    </section>
  );
}
