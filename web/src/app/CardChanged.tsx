import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useLocation } from "react-router";
import { cardOf } from "../api/card";
import { clockOf } from "../domain/clock";
import { Said } from "../ui/Said";

/** The rehearsal and its board come first. */
const AFTER_MS = 1500;
const MOST_NAMED = 3;

/** Said when a trip is opened: what the plan changes on the card that is in a pocket already. */
export function CardChanged({ id, version, zone }: { id: number; version: number; zone: string }) {
  const [opened] = useState(version);
  const [asks, setAsks] = useState(false);
  const [closed, setClosed] = useState(false);
  const here = useLocation().pathname.endsWith("/card");
  useEffect(() => {
    const later = setTimeout(() => setAsks(true), AFTER_MS);
    return () => clearTimeout(later);
  }, []);
  const { data } = useQuery({ ...cardOf(id, opened), enabled: asks && !here && !closed });
  if (here && !closed) setClosed(true); // it is told there, stop by stop
  if (closed || !data?.made || data.changed.length === 0) return null;
  const made = clockOf(zone, data.made);
  const stops = data.changed.map((one) => one.stop);
  const more = stops.length - MOST_NAMED;
  return (
    <div className="kept-alerts">
      <Said
        kind="note"
        doing={<Link to={`/trip/${String(id)}/card`}>What changed, move by move</Link>}
        onClose={() => setClosed(true)}
      >
        The card made on {made.date(0)} at {made.time(0)} is not this plan’s any more:{" "}
        {stops.slice(0, MOST_NAMED).join(", ")}
        {more > 0 ? ` and ${String(more)} more` : ""}. Take it along again.
      </Said>
    </div>
  );
}
