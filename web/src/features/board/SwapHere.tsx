import { memo } from "react";
import { type SwapWhen, withSwap } from "../../domain/edits";
import { withCardSwap } from "../../domain/handEdits";
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

/** The person's own word on the battery at this stop, over the policy's. */
export const SwapHere = memo(function SwapHere(props: Props) {
  return (
    <>
      <BatteryHere {...props} />
      {props.camera.memory.kind === "slot" && props.document.kit.cards.length > 1 ? (
        <CardHere {...props} />
      ) : null}
    </>
  );
});

/** The person's own word on the card at this stop. */
function CardHere({ camera, item, plan, document, editPlan }: Props) {
  const swap = plan.card_swaps.find((one) => one.camera === camera.id && one.item === item);
  const largest = camera.memory.kind === "slot" ? camera.memory.largest_gb : 0;
  return (
    <div className="strip-fields">
      <ChoiceIn
        label="Card here"
        value={swap === undefined ? DECIDE : (swap.card ?? LEAVE)}
        choices={[
          { value: DECIDE, name: "as the policy says" },
          { value: LEAVE, name: "leave in what is in" },
          ...document.kit.cards
            .filter((one) => one.gb <= largest)
            .map((one) => ({ value: one.id, name: `put in ${one.name}` })),
        ]}
        onCommit={(chosen) => {
          const card = chosen === DECIDE ? undefined : chosen === LEAVE ? null : chosen;
          editPlan((old) => withCardSwap(old, camera.id, item, card));
        }}
        wide
      />
      {swap?.card == null ? null : (
        <ChoiceIn
          label="Card when"
          value={swap.when}
          choices={WHEN}
          onCommit={(when) => {
            editPlan((old) => withCardSwap(old, camera.id, item, swap.card, when));
          }}
          wide
        />
      )}
    </div>
  );
}

function BatteryHere({ camera, item, plan, document, editPlan }: Props) {
  if (camera.battery_comes_out === false)
    return <p className="hint">Its battery does not come out.</p>;
  const swap = plan.swaps?.find((one) => one.camera === camera.id && one.item === item);
  const value = swap === undefined ? DECIDE : (swap.battery ?? LEAVE);
  const fitting = document.kit.batteries.filter((one) => one.family === camera.battery_family);
  return (
    <div className="strip-fields">
      <ChoiceIn
        label="Battery here"
        value={value}
        choices={[
          { value: DECIDE, name: "as the policy says" },
          { value: LEAVE, name: "leave in what is in" },
          ...fitting.map((one) => ({ value: one.id, name: `put in ${one.name}` })),
        ]}
        onCommit={(chosen) => {
          const battery = chosen === DECIDE ? undefined : chosen === LEAVE ? null : chosen;
          editPlan((old) => withSwap(old, camera.id, item, battery));
        }}
        wide
      />
      {swap?.battery == null ? null : (
        <ChoiceIn
          label="When"
          value={swap.when}
          choices={WHEN}
          onCommit={(when) => {
            editPlan((old) => withSwap(old, camera.id, item, swap.battery, when));
          }}
          wide
        />
      )}
    </div>
  );
}
