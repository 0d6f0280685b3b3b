import { useTripHere } from "../../app/TripContext";
import { useKeepKit } from "../../app/useKeepKit";
import type { Unit } from "../../domain/carried";
import { withFitted, withSwap } from "../../domain/edits";
import { barredAt } from "../../domain/handEdits";
import type { PlanDocument, Rehearsal } from "../../domain/types";

interface Props {
  document: PlanDocument;
  rehearsal: Rehearsal;
  handMs: number;
  unit: Unit;
}

const HERE = "";

/**
 * Where a battery goes: into a camera at this stop (or at the start, on the first one), or into
 * another pocket, which changes the kit.
 */
export function PocketTo({ document, rehearsal, handMs, unit }: Props) {
  const { kept } = useTripHere();
  const keepKit = useKeepKit();
  const { kit } = document;
  const battery = kit.batteries.find((one) => one.id === unit.id);
  const laid = rehearsal.items.find((one) => one.start_ms <= handMs && handMs < one.end_ms);
  const item = document.trip.items.find((one) => one.id === laid?.id);
  if (battery === undefined || item === undefined) return null;
  const first = item.id === document.trip.items[0]?.id;
  const barred = barredAt("swap", item, kit);
  const cameras = kit.cameras.filter(
    (one) =>
      one.battery_family === battery.family && one.battery_comes_out && one.id !== unit.place,
  );
  const put = (to: string) => {
    const [kind, which = ""] = to.split("/");
    if (kind === "camera")
      kept.edit((doc) => ({
        ...doc,
        plan: first
          ? withFitted(doc.plan, which, battery.id)
          : withSwap(doc.plan, which, item.id, battery.id),
      }));
    if (kind !== "pocket") return;
    const pocket = which === "" ? null : which;
    void keepKit((old) => ({
      ...old,
      batteries: old.batteries.map((one) => (one.id === battery.id ? { ...one, pocket } : one)),
    }));
  };
  return (
    <select
      className="pocket-to"
      aria-label={`Move ${unit.name} to`}
      value={HERE}
      onChange={(event) => put(event.target.value)}
    >
      <option value={HERE}>move to…</option>
      {cameras.map((one) => (
        <option key={one.id} value={`camera/${one.id}`} disabled={barred !== null}>
          {one.name}, {first ? "at the start" : `at ${item.name}`}
          {barred === null ? "" : ` (${barred})`}
        </option>
      ))}
      {[...kit.pockets, { id: "", name: "the bag" }]
        .filter((one) => one.id !== (battery.pocket ?? ""))
        .map((one) => (
          <option key={`pocket-${one.id}`} value={`pocket/${one.id}`}>
            pocket: {one.name}, on all trips of this kit
          </option>
        ))}
    </select>
  );
}
