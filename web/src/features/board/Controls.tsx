import type { Clock, DayWindow } from "../../domain/clock";
import type { Plan } from "../../domain/types";
import type { Fold } from "../../scale/elastic";
import { Pick } from "../../ui/fields";

interface Props {
  days: readonly DayWindow[];
  dayNumber: number;
  clock: Clock;
  fold: Fold;
  policy: Plan["swap_policy"];
  onDay: (number: number) => void;
  onFold: (fold: Fold) => void;
  onPolicy: (policy: Plan["swap_policy"]) => void;
  onWhole: () => void;
}

/** Which day is drawn, how far it is folded, and when batteries are swapped. */
export function Controls(props: Props) {
  const { days, dayNumber, clock, fold, policy, onDay, onFold, onPolicy, onWhole } = props;
  const choices = [
    ...days.map((day) => ({
      value: String(day.number),
      name: String(day.number),
      note: clock.date(day.startMs).replace(/ \w+$/, ""),
    })),
    { value: "stops", name: "All", note: "stops" },
  ];
  return (
    <div className="controls label">
      <span aria-hidden="true">Day</span>
      <Pick
        label="Day"
        value={fold === "stops" ? "stops" : String(dayNumber)}
        choices={choices}
        onPick={(value) => {
          if (value === "stops") onFold("stops");
          else onDay(Number(value));
        }}
      />
      <span className="controls-right">
        <span aria-hidden="true">Swap</span>
        <Pick
          label="When batteries and cards are swapped"
          value={policy ?? "early"}
          choices={[
            { value: "early", name: "early, at a stop" },
            { value: "run_flat", name: "when flat" },
          ]}
          onPick={onPolicy}
        />
        <button type="button" className="plain link" aria-haspopup="dialog" onClick={onWhole}>
          For the whole trip
        </button>
      </span>
    </div>
  );
}
