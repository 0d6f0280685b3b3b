import { measured, shownIn } from "../../domain/measures";
import { degreesText, metresText } from "../../domain/units";
import type { Scales, StripLanes } from "./rowPictures";

interface Props {
  scales: Scales;
  lanes: StripLanes;
}

/** What each lane is, and its scale. */
export function RouteHead({ scales, lanes }: Props) {
  const { ground, warm } = scales;
  const lane = ([from, to]: readonly [number, number]) => ({ left: from, width: to - from });
  return (
    <div className="route-head label" style={{ width: lanes.width }} aria-hidden="true">
      <Lane at={lane(lanes.clock)} name="clock" low="" high="" />
      <Lane
        at={lane(lanes.ground)}
        name="ground"
        low={ground === null ? "" : String(Math.round(shownIn("m").of(ground[0])))}
        high={ground === null ? "not known" : metresText(ground[1])}
      />
      <Lane at={lane(lanes.warm)} name="air" {...warmthTexts(warm, lanes.warm)} />
      {lanes.air[1] > lanes.air[0] ? (
        <Lane at={lane(lanes.air)} name="flow" low="0" high={measured(scales.mostAir, "m/s", 0)} />
      ) : null}
      <Lane
        at={lane(lanes.sun)}
        name="sun"
        low=""
        high={lanes.air[1] > lanes.air[0] ? `${String(Math.round(scales.mostSun))} W/m²` : ""}
      />
    </div>
  );
}

const NARROW_PX = 50;

/** The ends of the scale, joined where there is no room for both. */
function warmthTexts([low, high]: Scales["warm"], [from, to]: StripLanes["warm"]) {
  const [least, most] = [low, high].map((one) => degreesText(one).slice(0, -1));
  if (to - from < NARROW_PX) return { low: `${least ?? ""} to ${most ?? ""}°`, high: "" };
  return { low: least ?? "", high: `${most ?? ""} ${shownIn("°C").unit}` };
}

function Lane({
  at,
  name,
  low,
  high,
}: {
  at: { left: number; width: number };
  name: string;
  low: string;
  high: string;
}) {
  return (
    <span className="route-lane" style={at}>
      <b>{name}</b>
      <i>{low}</i>
      <i>{high}</i>
    </span>
  );
}
