import { useQuery } from "@tanstack/react-query";
import { queries } from "../../api/queries";
import { useTripHere } from "../../app/TripContext";
import type { MeasuredBeside, PlanDocument } from "../../domain/types";

/** What runs foretell of a stretch's mode in its air, where the kit's figures say otherwise. */
export function useMeasured(document: PlanDocument, number: number): MeasuredBeside | undefined {
  const { kit } = useTripHere();
  const asked = document.plan.assignments[number];
  const item = document.trip.items.find((one) => one.id === asked?.item);
  const there = {
    ambient_c: item === undefined ? 20 : (item.temp_start_c + item.temp_end_c) / 2,
    air_mps: item?.kind === "leg" ? Math.min(60, item.air_mps) : 0,
    set_up: asked?.set_up ?? null,
  };
  const { id = 0, version = 0 } = kit.state ?? {};
  const found = useQuery({
    ...queries.beside(id, version, there),
    enabled: asked !== undefined && id > 0,
  });
  return found.data?.find((one) => one.camera === asked?.camera && one.mode === asked.mode);
}
