import * as limits from "../../domain/limits";
import { Button } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { queries } from "../../api/queries";
import { fromLocalField, localField } from "../../domain/routeEdits";
import type { Trip } from "../../domain/types";
import { NameIn, NumberIn, TextIn } from "../../ui/fields";
import { usePlaced } from "./usePlaced";

interface Props {
  trip: Trip;
  put: (part: Partial<Trip>) => void;
}

const FIRST_PLACE = { latitude: 0, longitude: 0, height_m: 0 };

function zoneIsKnown(zone: string): boolean {
  try {
    new Intl.DateTimeFormat("en", { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}

/** The trip's name, start and place. */
export function TripFields({ trip, put }: Props) {
  const { place } = trip;
  const at = place ?? FIRST_PLACE;
  const zone = useQuery({
    ...queries.zone(at.latitude, at.longitude),
    enabled: place != null,
  }).data?.time_zone;
  const placed = usePlaced(trip, put);
  return (
    <div className="row fields trip-fields">
      <NameIn label="Trip" path="trip.name" value={trip.name} onCommit={(name) => put({ name })} />
      <TextIn
        label="Start, local clock"
        path="trip.start"
        value={localField(trip.start).replace("T", " ")}
        check={(text) =>
          fromLocalField(text.trim().replace(" ", "T")) ? null : "Like 2027-06-12 06:00."
        }
        onCommit={(text) => {
          const start = fromLocalField(text.trim().replace(" ", "T"));
          if (start) put({ start });
        }}
      />
      <TextIn
        label="Time zone"
        path="trip.time_zone"
        value={trip.time_zone}
        check={(text) => (zoneIsKnown(text.trim()) ? null : "Like UTC or Etc/GMT-2.")}
        onCommit={(zone) => put({ time_zone: zone.trim() })}
      />
      <NumberIn
        label="Latitude"
        path="trip.place"
        unit="°"
        value={place?.latitude}
        {...limits.Place.latitude}
        onCommit={(latitude) => placed({ ...at, latitude })}
        onClear={() => put({ place: null })}
      />
      <NumberIn
        label="Longitude"
        unit="°"
        value={place?.longitude}
        {...limits.Place.longitude}
        onCommit={(longitude) => placed({ ...at, longitude })}
        onClear={() => put({ place: null })}
      />
      <NumberIn
        label="Height"
        unit="m"
        value={place?.height_m}
        {...limits.Place.height_m}
        onCommit={(height_m) => put({ place: { ...at, height_m } })}
        onClear={() => put({ place: null })}
      />
      {zone === undefined || zone === trip.time_zone ? null : (
        <Button size="small" onClick={() => put({ time_zone: zone })}>
          Take the place’s time zone, {zone}
        </Button>
      )}
      <span className="hint">
        The place gives light and sun; without it the sun’s heat is left out.
      </span>
    </div>
  );
}
