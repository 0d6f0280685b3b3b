import { type MouseEvent, useContext, useMemo, useRef } from "react";
import { Link, NavLink, useLocation, useNavigate } from "react-router";
import { useRoving } from "../ui/useRoving";
import { useCommands } from "./commands";
import { focusOn } from "./focusStays";
import { KeepingMark } from "./KeepingMark";
import type { Steps } from "./StepsContext";
import { ThemeContext } from "./themeContext";
import { MeasuresToggle } from "./MeasuresToggle";
import { ThemeToggle } from "./ThemeToggle";
import { useTitle } from "./useTitle";
import "./head.css";

interface Props {
  name: string;
  /** Of the open place: undo stands in one place, whatever it is of. */
  steps: Steps;
  /** They are the open place's own, which offers them as commands itself. */
  own: boolean;
  saveFile: () => void;
}

const PLACES = [
  { to: "kit", name: "Kit", keys: "Ctrl+Alt+K" },
  { to: "bench", name: "Bench", keys: "Ctrl+Alt+N" },
  { to: "route", name: "Route", keys: "Ctrl+Alt+R" },
  { to: "board", name: "Board", keys: "Ctrl+Alt+B" },
  { to: "variants", name: "Variants", keys: "Ctrl+Alt+V" },
  { to: "card", name: "Day card", keys: "Ctrl+Alt+D" },
  { to: "/sums", name: "Quick sums", keys: "Ctrl+Alt+Q" },
];
const APART = new Set(["route", "card", "/sums"]);

/** The trip's head: the way between its places, which stands still, and what is kept. */
export function TripHead({ name, steps, own, saveFile }: Props) {
  useHeadCommands(steps, own, saveFile);
  const { pathname } = useLocation();
  useTitle(PLACES.find(({ to }) => pathname.endsWith(`/${to}`))?.name, name);
  const index = useRef<HTMLElement>(null);
  const roving = useRoving(index, "a");
  return (
    <header className="head-bar label">
      <a href="#place" className="skip" onClick={pastTheIndex}>
        Past the index, to the place
      </a>
      <Link to="/trips" className="brand" aria-label="Tumbrel: all trips and files">
        Tumbrel
      </Link>
      <span className="trip-name" title={name}>
        {name}
      </span>
      <nav
        ref={index}
        aria-label="Places"
        className="places"
        onFocus={roving.onFocus}
        onKeyDown={roving.onKeyDown}
      >
        {PLACES.map((place) => (
          <NavLink
            key={place.to}
            to={place.to}
            className={({ isActive }) =>
              [APART.has(place.to) ? "place apart" : "place", isActive ? "here" : ""].join(" ")
            }
          >
            <span>{place.name}</span>
          </NavLink>
        ))}
      </nav>
      <span className="head-tools">
        <KeepingMark keeping={steps.keeping} what={steps.what} />
        <button
          type="button"
          className="plain tool"
          title={steps.undoes}
          onClick={steps.undo}
          disabled={!steps.canUndo}
        >
          Undo
        </button>
        <button
          type="button"
          className="plain tool"
          title={steps.redoes}
          onClick={steps.redo}
          disabled={!steps.canRedo}
        >
          Redo
        </button>
        <button type="button" className="plain tool wide" onClick={saveFile}>
          Save file
        </button>
        <Link to="/trips" className="tool wide">
          Trips
        </Link>
        <span className="wide">
          <MeasuresToggle />
        </span>
        <ThemeToggle />
      </span>
    </header>
  );
}

function pastTheIndex(event: MouseEvent) {
  event.preventDefault();
  focusOn();
}

function useHeadCommands(steps: Steps, own: boolean, saveFile: () => void): void {
  const { toggle } = useContext(ThemeContext);
  const navigate = useNavigate();
  const { canUndo, canRedo, undo, redo } = steps;
  const commands = useMemo(
    () => [
      ...(own
        ? []
        : [
            { name: "Undo", keys: "Ctrl+Z", allowed: canUndo, run: undo },
            { name: "Redo", keys: "Ctrl+Shift+Z", allowed: canRedo, run: redo },
          ]),
      ...PLACES.map((place) => ({
        name: place.to === "/sums" ? place.name : `Go to ${place.name}`,
        keys: place.keys,
        allowed: true,
        run: () => void navigate(place.to),
      })),
      {
        name: "All trips and files",
        keys: "Ctrl+O",
        allowed: true,
        run: () => void navigate("/trips"),
      },
      { name: "Save the plan file", keys: "Ctrl+S", allowed: true, run: saveFile },
      { name: "Light or dim", keys: "Ctrl+Alt+L", allowed: true, run: toggle },
    ],
    [own, canUndo, canRedo, undo, redo, saveFile, navigate, toggle],
  );
  useCommands("shell", commands);
}
