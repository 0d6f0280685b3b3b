import { Link, useLocation } from "react-router";
import { useTripHere } from "./TripContext";
import "./next.css";

/** On the way to a first verdict: the one thing to do next, and where. Nothing once it is there. */
export function NextThing() {
  const { kept, kit } = useTripHere();
  const { pathname } = useLocation();
  const at = pathname.split("/").at(-1) ?? "";
  const cameras = kit.state?.kit.cameras.length ?? 0;
  const legs = kept.state?.trip.items.filter((one) => one.kind === "leg").length ?? 0;
  const asked = kept.state?.plan.assignments.length ?? 0;
  const next = thingToDo(at, cameras, legs, asked);
  if (next === null) return null;
  return (
    <p className="next-thing">
      <b>Next:</b> {next.words}{" "}
      {next.to === at ? null : (
        <Link to={`../${next.to}`} className="next-go">
          {next.go}
        </Link>
      )}
    </p>
  );
}

function thingToDo(at: string, cameras: number, legs: number, asked: number) {
  if (cameras === 0) {
    const words =
      at === "kit"
        ? "add the camera you carry; four answers are enough."
        : "put your cameras on the shelf.";
    return { to: "kit", words, go: "Go to Kit" };
  }
  if (legs === 0) {
    const words =
      at === "route"
        ? "add the first leg below: its name and how long it takes; or drop a track."
        : "add another camera, or say where you go.";
    return { to: "route", words, go: "Go to Route" };
  }
  if (asked === 0 && at !== "board")
    return {
      to: "board",
      words: "add more legs and stops, or say what films on them.",
      go: "Go to Board",
    };
  return null;
}
