import { gapName } from "../domain/gaps";
import type { PlanDocument, Rehearsal } from "../domain/types";
import type { Elastic } from "../scale/elastic";
import type { Lanes } from "../scale/lanes";
import { gapLines } from "./gapLines";

interface Props {
  document: PlanDocument;
  rehearsal: Rehearsal;
  scale: Elastic;
  lanes: Lanes;
}

/** From what the telling says of a gap, a dotted line to the rope that has it. */
export function Leads({ document, rehearsal, scale, lanes }: Props) {
  const { telling } = lanes;
  if (telling === null) return null;
  return (
    <g data-part="leads">
      {gapLines(rehearsal, scale).map(({ gap, y }) => {
        const lane = lanes.at[document.kit.cameras.findIndex((one) => one.id === gap.camera)];
        if (lane === undefined) return null;
        return (
          <path
            key={gapName(gap)}
            d={`M${String(telling.x + telling.w - 14)} ${String(y + 9)}H${String(lane.x + lane.spine - 4)}`}
            stroke="var(--gap)"
            strokeWidth={1.4}
            strokeDasharray="1.5 3"
          />
        );
      })}
    </g>
  );
}
