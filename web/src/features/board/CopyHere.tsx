import { memo } from "react";
import type { Camera, Copy, Plan, PlanDocument } from "../../domain/types";
import { withCopy } from "../../domain/edits";
import { CheckIn, ChoiceIn } from "../../ui/fields";

interface Props {
  camera: Camera;
  item: string;
  plan: Plan;
  document: PlanDocument;
  editPlan: (change: (old: Plan) => Plan) => void;
}

const NONE = "";
const INSIDE = "-";
const UNSAID: Pick<Copy, "wipe" | "by" | "side_files"> = {
  wipe: "no",
  by: "cable",
  side_files: true,
};
const WIPE: Record<Copy["wipe"], string> = {
  no: "then leave it in the camera",
  with_two_copies: "then wipe what has two copies",
  anyway: "then wipe all the same",
};

/** What is in the camera, copied to a phone or drive at this stop, and perhaps wiped. */
export const CopyHere = memo(function CopyHere({ camera, item, plan, document, editPlan }: Props) {
  const { drives } = document.kit;
  const inside = camera.slot != null;
  if (drives.length === 0 && !inside) return null;
  const copy = plan.copies.find((one) => one.camera === camera.id && one.item === item);
  const put = (next: Omit<Copy, "camera" | "item"> | null) =>
    editPlan((old) => withCopy(old, camera.id, item, next && { ...next, camera: camera.id, item }));
  return (
    <div className="strip-fields">
      <ChoiceIn
        label="Copy its footage here"
        value={copy === undefined ? NONE : (copy.drive ?? INSIDE)}
        choices={[
          { value: NONE, name: "no" },
          ...(inside ? [{ value: INSIDE, name: "to the card in it" }] : []),
          ...drives.map((one) => ({ value: one.id, name: `to ${one.name}` })),
        ]}
        onCommit={(to) => {
          const drive = to === INSIDE ? null : to;
          put(to === NONE ? null : { ...UNSAID, ...(drive === null ? {} : copy), drive });
        }}
        wide
      />
      {copy?.drive != null ? (
        <>
          <ChoiceIn
            label="Over"
            value={copy.by}
            choices={[
              { value: "cable", name: "a cable" },
              { value: "radio", name: "its radio" },
            ]}
            onCommit={(by) => put({ ...copy, by })}
          />
          <CheckIn
            label="with the small side files"
            value={copy.side_files}
            onCommit={(side_files) => put({ ...copy, side_files })}
          />
          <ChoiceIn
            label="And then"
            value={copy.wipe}
            choices={Object.entries(WIPE).map(([value, name]) => ({
              value: value as Copy["wipe"],
              name,
            }))}
            onCommit={(wipe) => put({ ...copy, wipe })}
            wide
          />
        </>
      ) : null}
    </div>
  );
});
