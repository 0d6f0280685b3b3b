import { Button } from "@mui/material";
import { plugChoices, plugInto } from "../../domain/handEdits";
import type { Kit, Plan, PlanDocument } from "../../domain/types";
import { CheckIn, ChoiceIn } from "../../ui/fields";

interface Props {
  document: PlanDocument;
  plan: Plan;
  put: (part: Partial<Plan>) => void;
}

const MOST = 2000;

/** Cables by the plan's own word: what is plugged into what, and where; chains are made so. */
export function PlugsSaid({ document, plan, put }: Props) {
  const { kit, trip } = document;
  const units = plugChoices(kit);
  const stops = trip.items.filter((one) => one.kind === "stop");
  const first = units[0];
  const free = stops.find((stop) => !plan.plugs.some((one) => one.item === stop.id));
  const change = (place: number, part: Partial<Plan["plugs"][number]>) =>
    put({ plugs: plan.plugs.map((one, n) => (n === place ? { ...one, ...part } : one)) });
  return (
    <section aria-label="Cables you decide on">
      <h3>Cables you decide on</h3>
      {plan.plugs.map((plug, place) => (
        <div className="wish" key={place} role="group" aria-label={`Cable ${String(place + 1)}`}>
          <ChoiceIn
            label="Unit"
            path={`plan.plugs[${String(place)}].unit`}
            value={plug.unit}
            choices={units}
            onCommit={(unit) => change(place, { unit, to: null, place: null })}
          />
          <ChoiceIn
            label="At"
            path={`plan.plugs[${String(place)}].item`}
            value={plug.item}
            choices={stops.map((one) => ({ value: one.id, name: one.name }))}
            onCommit={(item) => change(place, { item })}
          />
          <ChoiceIn
            label="Into"
            path={`plan.plugs[${String(place)}].to`}
            value={plug.plug ? (plug.to ?? "") : "-"}
            choices={plugInto(kit, plug.unit)}
            onCommit={(to) =>
              change(place, {
                plug: to !== "-",
                to: to === "" || to === "-" ? null : to,
                place: null,
              })
            }
            wide
          />
          <button
            type="button"
            className="plain link"
            onClick={() => put({ plugs: plan.plugs.filter((_, n) => n !== place) })}
          >
            Delete
          </button>
        </div>
      ))}
      <p className="hint">
        A bank or module put onto a bank stays on its cable when you leave. A module put onto its
        camera is swapped there.
      </p>
      <Button
        size="small"
        disabled={first === undefined || free === undefined || plan.plugs.length >= MOST}
        onClick={() => {
          if (first !== undefined && free !== undefined)
            put({ plugs: [...plan.plugs, { unit: first.value, item: free.id, plug: true }] });
        }}
      >
        Add a cable
      </Button>
    </section>
  );
}

/** Legs and stops on which a thing with a battery is used, besides what its camera asks. */
export function GearUsed({ document, plan, put }: Props) {
  const { kit, trip } = document;
  if (kit.gear.length === 0) return null;
  const uses = (gear: string, item: string) =>
    plan.gear.some((one) => one.gear === gear && one.item === item);
  return (
    <section aria-label="Where things with a battery are used">
      <h3>Where things with a battery are used</h3>
      {kit.gear.map((gear) => (
        <details key={gear.id}>
          <summary>
            {gear.name}: {usedText(kit, plan, gear)}
          </summary>
          <div className="row">
            {trip.items.map((item) => (
              <CheckIn
                key={item.id}
                label={item.name}
                value={uses(gear.id, item.id)}
                onCommit={(on) => {
                  const others = plan.gear.filter(
                    (one) => one.gear !== gear.id || one.item !== item.id,
                  );
                  put({ gear: on ? [...others, { gear: gear.id, item: item.id }] : others });
                }}
              />
            ))}
          </div>
        </details>
      ))}
    </section>
  );
}

function usedText(kit: Kit, plan: Plan, gear: Kit["gear"][number]): string {
  const camera = kit.cameras.find((one) => one.id === gear.serves)?.name;
  const named = plan.gear.filter((one) => one.gear === gear.id).length;
  const parts = [
    ...(camera === undefined ? [] : [`with ${camera}`]),
    ...(named === 0 ? [] : [`${String(named)} named`]),
  ];
  return parts.length === 0 ? "nowhere yet" : parts.join(", ");
}
