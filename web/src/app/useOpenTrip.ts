import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useMemo } from "react";
import { type KeptKit, type KeptTrip, useKeptKit, useKeptTrip } from "../api/keptTrip";
import { queries } from "../api/queries";
import { SCHEMA } from "../api/schema-number";
import { type Rehearsing, useRehearsal } from "../api/useRehearsal";
import { withoutMissing } from "../domain/refers";
import { withoutWays } from "../domain/track";
import type { Kit, KitState, PlanDocument, Trip, TripState } from "../domain/types";
import { type GoneSaid, useGone } from "./gone";

interface OpenTrip {
  kept: KeptTrip;
  kit: KeptKit;
  rehearsing: Rehearsing;
  /** Trip and kit are both there. */
  open: boolean;
  gone: GoneSaid;
}

const documents = new WeakMap<TripState["plan"], { trip: Trip; document: PlanDocument }>();

/** The document of a trip to rehearse; the same one as long as kit, trip and plan are the same. */
function documentOf({ trip, plan }: TripState, kit: Kit): PlanDocument {
  const known = documents.get(plan);
  if (known?.document.kit === kit && known.trip === trip) return known.document;
  const left = withoutMissing(plan, kit); // until the trip has gone along with its kit
  const document: PlanDocument = { tumbrel: SCHEMA, kit, trip: withoutWays(trip), plan: left };
  documents.set(plan, { trip, document });
  return document;
}

/** A trip and the kit that it carries, each kept by itself, and both rehearsed at every edit. */
export function useOpenTrip(id: number, kitId: number): OpenTrip {
  const cache = useQueryClient();
  const trip = useQuery({ ...queries.trip(id), enabled: false }).data;
  const kitState = useQuery({ ...queries.kit(kitId), enabled: false }).data;
  const document = useMemo(
    () => (trip === undefined || kitState === undefined ? null : documentOf(trip, kitState.kit)),
    [trip, kitState],
  );
  const rehearsing = useRehearsal(document);
  const { push, settled: rehearsed } = rehearsing;
  const gone = useGone();
  const { followed, forget } = gone;
  const onEdit = useCallback(() => {
    forget();
    const edited = cache.getQueryData<TripState>(["trip", id]);
    const carried = cache.getQueryData<KitState>(["kit", kitId]);
    if (edited !== undefined && carried !== undefined) push(documentOf(edited, carried.kit));
  }, [cache, id, kitId, push, forget]);
  const onKitSaved = useCallback(
    ({ went, back }: KitState, kind: "save" | "step") => {
      if (kind === "step") forget();
      followed(went, back);
      if (went.length + back.length > 0) void cache.invalidateQueries({ queryKey: ["trip"] });
    },
    [cache, followed, forget],
  );
  const onTripSaved = useCallback(
    (_: TripState, kind: "save" | "step") => {
      if (kind !== "step") return;
      forget();
      void cache.invalidateQueries({ queryKey: ["kit", kitId] }); // it may have been stepped along
    },
    [cache, kitId, forget],
  );
  const kit = useKeptKit(kitId, { onEdit, onSaved: onKitSaved });
  const { settled: kitSettled } = kit;
  // a plan may lean on what its kit has only now
  const before = useCallback(async () => {
    await kitSettled();
    await rehearsed();
  }, [kitSettled, rehearsed]);
  const kept = useKeptTrip(id, { onEdit, onSaved: onTripSaved, before });
  const carried = kit.state?.kit;
  const state = useMemo(
    () => (kept.state && carried ? { ...kept.state, kit: carried } : kept.state),
    [kept.state, carried],
  );
  return { kept: { ...kept, state }, kit, rehearsing, open: document !== null, gone };
}
