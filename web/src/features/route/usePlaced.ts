import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { queries } from "../../api/queries";
import type { Trip } from "../../domain/types";

type Place = NonNullable<Trip["place"]>;
type Clock = Pick<Trip, "place" | "time_zone">;

const UNCHOSEN = "UTC";

/**
 * Move a trip's place, and its clock with it where nobody has chosen one: it is UTC, or that of
 * the place before. What it was is asked as well, so that it does not hang on how quickly the
 * server answers, and kept until the last of several moves is answered: latitude and longitude
 * are two. A clock or place changed meanwhile stands.
 */
export function usePlaced(trip: Trip, put: (part: Partial<Trip>) => void): (next: Place) => void {
  const cache = useQueryClient();
  const latest = useRef({ trip, put });
  const before = useRef<Clock | null>(null);
  const asked = useRef(0);
  useEffect(() => {
    latest.current = { trip, put };
  });
  const zoneAt = async ({ latitude, longitude }: Place) =>
    (await cache.fetchQuery(queries.zone(latitude, longitude))).time_zone;
  const zones = (from: Clock, next: Place) =>
    Promise.all([
      from.time_zone === UNCHOSEN || from.place == null ? UNCHOSEN : zoneAt(from.place),
      zoneAt(next),
    ]).catch(() => null); // offered as soon as it is known
  return (next) => {
    const from = (before.current ??= { place: trip.place, time_zone: trip.time_zone });
    const mine = (asked.current += 1);
    put({ place: next });
    void zones(from, next).then((found) => {
      if (mine !== asked.current) return;
      before.current = null;
      const now = latest.current;
      const stands = isSame(now.trip.place, next) && now.trip.time_zone === from.time_zone;
      if (found === null || !stands || from.time_zone !== found[0]) return;
      if (found[1] !== found[0]) now.put({ time_zone: found[1] });
    });
  };
}

function isSame(one: Trip["place"], other: Place): boolean {
  return one?.latitude === other.latitude && one.longitude === other.longitude;
}
