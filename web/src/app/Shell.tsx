import { useCallback, useContext, useEffect, useMemo } from "react";
import { Link, NavLink, Outlet, useLocation, useNavigate, useParams } from "react-router";
import { useQuery } from "@tanstack/react-query";
import type { Keeping } from "../api/kept";
import { queries } from "../api/queries";
import { namesOf } from "../domain/clashes";
import { useCommands } from "./commands";
import { Conflicts } from "./Conflicts";
import { KeepingMark } from "./KeepingMark";
import { ThemeContext } from "./themeContext";
import { ThemeToggle } from "./ThemeToggle";
import { LAST_TRIP, TripContext } from "./TripContext";
import { useOpenTrip } from "./useOpenTrip";

const PLACES = [
  { to: "kit", name: "Kit" },
  { to: "bench", name: "Bench" },
  { to: "route", name: "Route" },
  { to: "board", name: "Board" },
  { to: "variants", name: "Variants" },
];

/** One trip: its head, the way between its places, and what all places share. */
export function Shell() {
  const id = Number(useParams()["tripId"]);
  return <TripShell key={id} id={id} />;
}

function TripShell({ id }: { id: number }) {
  const { data, error } = useQuery(queries.trip(id));
  if (data !== undefined) return <OpenTrip id={id} kitId={data.kit_id} />;
  if (error === null) return <p className="page">Opening the trip…</p>;
  return (
    <main className="page">
      <h1>This trip cannot be opened.</h1>
      <p>{error.message}</p>
      <p>
        <Link to="/trips">All trips</Link>
      </p>
    </main>
  );
}

function OpenTrip({ id, kitId }: { id: number; kitId: number }) {
  const here = useOpenTrip(id, kitId);
  const { kept, kit, rehearsing } = here;
  const { state, settled } = kept;
  const names = useMemo(
    () => (kept.conflict && state ? namesOf(state.kit, state.trip) : undefined),
    [kept.conflict, state],
  );
  const saveFile = useCallback(() => {
    void settled().then(() => location.assign(`/api/trips/${String(id)}/file`));
  }, [id, settled]);
  useEffect(() => {
    localStorage.setItem(LAST_TRIP, String(id));
  }, [id]);
  const value = useMemo(() => ({ id, kept, kit, rehearsing }), [id, kept, kit, rehearsing]);
  return (
    <TripContext value={value}>
      <TripHead
        name={state?.trip.name ?? "…"}
        canUndo={state?.can_undo ?? false}
        canRedo={state?.can_redo ?? false}
        keeping={kept.keeping}
        undo={kept.undo}
        redo={kept.redo}
        saveFile={saveFile}
      />
      <Conflicts kept={kept} what="trip" names={names} />
      <Conflicts kept={kit} what="kit" />
      {here.open ? (
        <Outlet />
      ) : (
        <p className="page" role={kit.error ? "alert" : undefined}>
          {kit.error?.message ?? "Opening the trip…"}
        </p>
      )}
    </TripContext>
  );
}

interface HeadProps {
  name: string;
  canUndo: boolean;
  canRedo: boolean;
  keeping: Keeping;
  undo: () => void;
  redo: () => void;
  saveFile: () => void;
}

function TripHead({ name, canUndo, canRedo, keeping, undo, redo, saveFile }: HeadProps) {
  const { toggle } = useContext(ThemeContext);
  const navigate = useNavigate();
  const ownSteps = /\/(kit|bench)$/.test(useLocation().pathname);
  const commands = useMemo(
    () => [
      ...(ownSteps
        ? []
        : [
            { name: "Undo", keys: "Ctrl+Z", allowed: canUndo, run: undo },
            { name: "Redo", keys: "Ctrl+Shift+Z", allowed: canRedo, run: redo },
          ]),
      { name: "Go to Kit", keys: "Ctrl+Alt+K", allowed: true, run: () => void navigate("kit") },
      { name: "Go to Bench", keys: "Ctrl+Alt+N", allowed: true, run: () => void navigate("bench") },
      { name: "Go to Route", keys: "Ctrl+Alt+R", allowed: true, run: () => void navigate("route") },
      { name: "Go to Board", keys: "Ctrl+Alt+B", allowed: true, run: () => void navigate("board") },
      {
        name: "Go to Variants",
        keys: "Ctrl+Alt+V",
        allowed: true,
        run: () => void navigate("variants"),
      },
      { name: "Quick sums", keys: "Ctrl+Alt+Q", allowed: true, run: () => void navigate("/sums") },
      {
        name: "All trips and files",
        keys: "Ctrl+O",
        allowed: true,
        run: () => void navigate("/trips"),
      },
      { name: "Save the plan file", keys: "Ctrl+S", allowed: true, run: saveFile },
      { name: "Light or dim", keys: "Ctrl+Alt+L", allowed: true, run: toggle },
    ],
    [ownSteps, canUndo, canRedo, undo, redo, saveFile, navigate, toggle],
  );
  useCommands("shell", commands);
  return (
    <header className="head-bar label">
      <Link to="/trips" className="brand" aria-label="Tumbrel: all trips and files">
        Tumbrel
      </Link>
      <span className="trip-name">{name}</span>
      <nav aria-label="Places" className="places">
        {PLACES.map((place) => (
          <NavLink
            key={place.to}
            to={place.to}
            className={({ isActive }) =>
              [place.to === "route" ? "place apart" : "place", isActive ? "here" : ""].join(" ")
            }
          >
            <span>{place.name}</span>
          </NavLink>
        ))}
        <NavLink to="/sums" className="place apart">
          <span>Quick sums</span>
        </NavLink>
      </nav>
      <span className="head-tools">
        <KeepingMark keeping={keeping} what="The trip" />
        {ownSteps ? null : (
          <>
            <button type="button" className="plain tool" onClick={undo} disabled={!canUndo}>
              Undo
            </button>
            <button type="button" className="plain tool" onClick={redo} disabled={!canRedo}>
              Redo
            </button>
          </>
        )}
        <button type="button" className="plain tool wide" onClick={saveFile}>
          Save file
        </button>
        <Link to="/trips" className="tool wide">
          Trips
        </Link>
        <ThemeToggle />
      </span>
    </header>
  );
}
