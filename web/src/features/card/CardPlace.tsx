import { Button } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useContext, useEffect, useRef, useState } from "react";
import { type CardForm, cardOf, takeCard } from "../../api/card";
import type { Schemas } from "../../api/client";
import { ThemeContext } from "../../app/themeContext";
import { useTripHere } from "../../app/TripContext";
import { type Mounted, mountCard } from "../../pocket/card";
import { readTicks, type Tick } from "../../pocket/ticks";
import { FileIn } from "../../ui/FileIn";
import { clockOf } from "../../domain/clock";
import { Said } from "../../ui/Said";
import { type CardStore, cardStore } from "./cardStore";
import "./card.css";

type CardState = Schemas["CardState"];

const FORMS: readonly { form: CardForm; name: string; what: string }[] = [
  { form: "html", name: "One file for the phone", what: "the whole card, with no network" },
  { form: "ics", name: "Calendar", what: "alarms for what must not be missed" },
  { form: "csv", name: "Table", what: "all moves, one a line" },
];

/** What do my hands do now? One stop at a time, and what goes along of it. */
export function CardPlace() {
  const { id, kept } = useTripHere();
  const card = useQuery(cardOf(id, kept.state?.version ?? 0));
  return (
    <main className="page card-page">
      {card.error === null ? null : <Said kind="wrong">{card.error.message}</Said>}
      {card.data === undefined ? (
        card.error === null ? (
          <h1>Rehearsing the card…</h1>
        ) : null
      ) : (
        <Along key={id} trip={id} state={card.data} />
      )}
    </main>
  );
}

function Along({ trip, state }: { trip: number; state: CardState }) {
  const frame = useRef<HTMLDivElement>(null);
  const live = useRef<{ card: Mounted; store: CardStore } | null>(null);
  const [first] = useState(state);
  const { theme } = useContext(ThemeContext);
  useEffect(
    () => () => {
      document.documentElement.dataset["theme"] = theme; // the night ends where the card does
    },
    [theme],
  );
  useEffect(() => {
    const root = frame.current;
    if (root === null) return;
    const store = cardStore(trip, first.ticks, () => live.current?.card.draw());
    const card = mountCard(root, {
      card: first.card,
      made: null,
      store,
      now: () => new Date(),
      alone: false,
    });
    live.current = { card, store };
    return () => {
      live.current = null;
      card.end();
      store.end();
    };
  }, [trip, first]);
  useEffect(() => {
    if (state === first) return; // it is mounted with that
    live.current?.store.know(state.ticks);
    live.current?.card.show(state.card);
  }, [state, first]);
  const take = (ticks: readonly Tick[]) => {
    live.current?.store.take(ticks);
    live.current?.card.draw();
  };
  return (
    <>
      <div className="pocket" ref={frame} />
      <aside className="card-side" aria-label="Take it along">
        <Changed state={state} />
        <Take trip={trip} />
        <TicksBack onTicks={take} />
      </aside>
    </>
  );
}

/** What the plan changes on the card that is in the pocket already. */
function Changed({ state }: { state: CardState }) {
  if (state.made === null || state.changed.length === 0) return null;
  const made = clockOf(state.card.time_zone, state.made);
  return (
    <section>
      <h2>
        Changed since the card of {made.date(0)}, {made.time(0)}
      </h2>
      <ul>
        {state.changed.map((one) => (
          <li key={one.stop}>
            {one.stop}: {one.said.join("; ")}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Prints every stop: on sheets, or in four strips that fold into a pocket. */
function printOn(paper: "sheet" | "fold"): void {
  document.documentElement.dataset["paper"] = paper;
  window.print();
}

function Take({ trip }: { trip: number }) {
  const [said, setSaid] = useState("");
  const save = async (form: CardForm) => {
    try {
      const { name, file } = await takeCard(trip, form);
      const link = document.createElement("a");
      link.href = URL.createObjectURL(file);
      link.download = name;
      link.click();
      URL.revokeObjectURL(link.href);
      setSaid(`Saved ${name}.`);
    } catch (problem) {
      setSaid(problem instanceof Error ? problem.message : "It could not be made.");
    }
  };
  return (
    <section>
      <h2>Take it along</h2>
      {FORMS.map(({ form, name, what }) => (
        <p key={form} className="card-form">
          <Button onClick={() => void save(form)}>{name}</Button> <span>{what}</span>
        </p>
      ))}
      <p className="card-form">
        <Button onClick={() => printOn("sheet")}>Print</Button>{" "}
        <span>every stop, a day a page</span>
      </p>
      <p className="card-form">
        <Button onClick={() => printOn("fold")}>Print to fold</Button> four strips a sheet, for a
        pocket
      </p>
      <p role="status">{said}</p>
    </section>
  );
}

/** Ticks that come back from a phone, by a file or a pasted text; what is there stays once. */
function TicksBack({ onTicks }: { onTicks: (ticks: readonly Tick[]) => void }) {
  const [text, setText] = useState("");
  const [said, setSaid] = useState("");
  const bring = (found: string) => {
    const ticks = readTicks(found);
    if (ticks === null) {
      setSaid("That holds no ticks: choose the file that the card saved, or paste what it copied.");
      return;
    }
    onTicks(ticks);
    setText("");
    setSaid(ticks.length === 1 ? "1 tick is there." : `${String(ticks.length)} ticks are there.`);
  };
  return (
    <section>
      <h2>Bring ticks back</h2>
      <p>
        <FileIn label="Open ticks" accept=".json" onFile={(file) => void file.text().then(bring)} />
      </p>
      <label>
        or paste them
        <textarea
          aria-label="Pasted ticks"
          value={text}
          rows={2}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <p>
        <Button disabled={text.trim() === ""} onClick={() => bring(text)}>
          Bring them back
        </Button>
      </p>
      <p role="status">{said}</p>
    </section>
  );
}
