import { memo } from "react";
import { type SwapWhen, withCardSwap, withSwap } from "../../domain/edits";
import type { Camera, Plan, PlanDocument } from "../../domain/types";
import { ChoiceIn } from "../../ui/fields";

interface Props {
  camera: Camera;
  item: string;
  plan: Plan;
  document: PlanDocument;
  editPlan: (change: (old: Plan) => Plan) => void;
}

const WHEN: { value: SwapWhen; name: string }[] = [
  { value: "arrival", name: "on arrival" },
  { value: "leaving", name: "just before leaving" },
];
const DECIDE = "";
const LEAVE = "-";

/** The person's own word on battery and card at this stop, over the policy's. */
export const SwapHere = memo(function SwapHere({ camera, item, plan, document, editPlan }: Props) {
  const { kit } = document;
  const { memory } = camera;
  const mine = (one: { camera: string; item: string }) =>
    one.camera === camera.id && one.item === item;
  const swap = plan.swaps.find(mine);
  const change = plan.card_swaps.find(mine);
  return (
    <>
      {camera.battery_comes_out ? (
        <WordHere
          label="Battery here"
          whenLabel="When"
          unit={swap?.battery}
          when={swap?.when}
          fitting={kit.batteries.filter((one) => one.family === camera.battery_family)}
          put={(battery, when) => editPlan((old) => withSwap(old, camera.id, item, battery, when))}
        />
      ) : (
        <p className="hint">Its battery does not come out.</p>
      )}
      {memory.kind === "slot" && kit.cards.length > 1 ? (
        <WordHere
          label="Card here"
          whenLabel="Card when"
          unit={change?.card}
          when={change?.when}
          fitting={kit.cards.filter((one) => one.gb <= memory.largest_gb)}
          put={(card, when) => editPlan((old) => withCardSwap(old, camera.id, item, card, when))}
        />
      ) : null}
    </>
  );
});

interface WordProps {
  label: string;
  whenLabel: string;
  /** What is to go in; null: what is in stays; and when. Neither, where the policy decides. */
  unit: string | null | undefined;
  when: SwapWhen | undefined;
  fitting: readonly { id: string; name: string }[];
  put: (unit: string | null | undefined, when?: SwapWhen) => void;
}

function WordHere({ label, whenLabel, unit, when, fitting, put }: WordProps) {
  return (
    <div className="strip-fields">
      <ChoiceIn
        label={label}
        value={when === undefined ? DECIDE : (unit ?? LEAVE)}
        choices={[
          { value: DECIDE, name: "as the policy says" },
          { value: LEAVE, name: "leave in what is in" },
          ...fitting.map((one) => ({ value: one.id, name: `put in ${one.name}` })),
        ]}
        onCommit={(chosen) => put(chosen === DECIDE ? undefined : chosen === LEAVE ? null : chosen)}
        wide
      />
      {unit == null || when === undefined ? null : (
        <ChoiceIn
          label={whenLabel}
          value={when}
          choices={WHEN}
          onCommit={(next) => put(unit, next)}
          wide
        />
      )}
    </div>
  );
}
