import { nameOfCamera } from "../../domain/moment";
import {
  ANGLES,
  type Assignment,
  type LegServed,
  MOUNTS,
  type PlanDocument,
  type Served,
} from "../../domain/types";
import { TextIn } from "../../ui/fields";

interface Props {
  document: PlanDocument;
  leg: LegServed | undefined;
  camera: string;
  asked: Assignment | undefined;
  put: (part: Partial<Assignment>) => void;
}

const VERDICTS: Record<Served["verdict"], string> = {
  well: "serves well here",
  poorly: "serves poorly here",
  never: "is unsafe or useless here",
};
const LONGEST_REASON = 200;

/** Whether this camera serves on this leg, why not, and which other would. The choice stays free. */
export function Serves({ document, leg, camera, asked, put }: Props) {
  const mine = leg?.cameras.find((one) => one.camera === camera);
  if (leg === undefined || mine === undefined) return null;
  const spokenOf = document.kit.cameras.some(
    (one) => one.id === camera && one.mounts.some((known) => known.mount === mine.mount),
  ); // what is known of a mount may advise against it too
  const others = leg.suggested.filter((one) => one !== camera);
  return (
    <section className={`serves ${mine.verdict}`} aria-label="Whether it serves here">
      <p className="label">
        <b>{mine.verdict === "well" ? "✓" : mine.verdict === "poorly" ? "~" : "✕"}</b>{" "}
        {ANGLES[mine.angle]}, {MOUNTS[mine.mount]}: it {VERDICTS[mine.verdict]}
        {mine.why.length === 0 ? "." : `: ${mine.why.join("; ")}.`}
      </p>
      {asked !== undefined && (mine.verdict !== "well" || spokenOf) ? (
        <TextIn
          label="Why all the same"
          value={asked.reason}
          placeholder="your reason; it is kept"
          onCommit={(reason) => put({ reason: reason.trim().slice(0, LONGEST_REASON) })}
          wide
        />
      ) : null}
      {others.length === 0 ? null : (
        <p className="hint">
          Another angle:{" "}
          {others
            .map((one) => {
              const found = leg.cameras.find((each) => each.camera === one);
              return `${nameOfCamera(document, one)} (${found ? ANGLES[found.angle] : ""})`;
            })
            .join(", ")}
          .
        </p>
      )}
    </section>
  );
}
