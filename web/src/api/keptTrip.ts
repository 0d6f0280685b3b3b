import { useMemo } from "react";
import type { TripAndPlan } from "../domain/edits";
import type { Kit, KitState, TripState } from "../domain/types";
import { client, unwrap } from "./client";
import { type Kept, type KeptSource, useKept } from "./kept";
import type { Versioned } from "./keeping";

export type KeptTrip = Kept<TripState, TripAndPlan>;

type Hearing<State> = Required<Pick<KeptSource<State & Versioned, unknown>, "onEdit" | "onSaved">>;
interface Ahead extends Hearing<TripState> {
  before: () => Promise<void>;
}

/** A trip as kept; `ahead` is told of edits before they are drawn and goes before saves. */
export function useKeptTrip(id: number, ahead: Ahead): KeptTrip {
  const { onEdit, onSaved, before } = ahead;
  return useKept(
    useMemo(() => ({ ...tripSource(id), onEdit, onSaved, before }), [id, onEdit, onSaved, before]),
  );
}

function tripSource(id: number): KeptSource<TripState, TripAndPlan> {
  const params = { path: { trip_id: id } };
  return {
    key: ["trip", id],
    load: () => unwrap(client.GET("/api/trips/{trip_id}", { params })),
    save: (version, doc) =>
      unwrap(client.PUT("/api/trips/{trip_id}", { params, body: { version, ...doc } })),
    step: (version, by) =>
      by < 0
        ? unwrap(client.POST("/api/trips/{trip_id}/undo", { params, body: { version } }))
        : unwrap(client.POST("/api/trips/{trip_id}/redo", { params, body: { version } })),
    docOf: ({ trip, plan }) => ({ trip, plan }),
    withDoc: (state, doc) => ({ ...state, ...doc }),
  };
}

export interface NamedKit {
  name: string;
  kit: Kit;
}
export type KeptKit = Kept<KitState, NamedKit>;

/** A kit as kept; `onEdit` is told of edits before they are drawn, `onSaved` of answers. */
export function useKeptKit(id: number, { onEdit, onSaved }: Hearing<KitState>): KeptKit {
  return useKept(useMemo(() => ({ ...kitSource(id), onEdit, onSaved }), [id, onEdit, onSaved]));
}

function kitSource(id: number): KeptSource<KitState, NamedKit> {
  const params = { path: { kit_id: id } };
  return {
    key: ["kit", id],
    load: () => unwrap(client.GET("/api/kits/{kit_id}", { params })),
    save: (version, doc) =>
      unwrap(client.PUT("/api/kits/{kit_id}", { params, body: { version, ...doc } })),
    step: (version, by) =>
      by < 0
        ? unwrap(client.POST("/api/kits/{kit_id}/undo", { params, body: { version } }))
        : unwrap(client.POST("/api/kits/{kit_id}/redo", { params, body: { version } })),
    docOf: ({ name, kit }) => ({ name, kit }),
    withDoc: (state, doc) => ({ ...state, ...doc }),
  };
}
