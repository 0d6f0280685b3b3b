import { tellPicture } from "../../api/queries";
import { usePumped } from "../../api/usePumped";
import { useMemo, useState } from "react";
import type { PictureTold, Plan, PlanDocument } from "../../domain/types";

interface Props {
  document: PlanDocument;
  /** As it is drafted. */
  plan: Plan;
  camera: string;
  item: string;
}

const NAMES: Record<PictureTold["sums"][number]["what"], string> = {
  slowing: "Slowing",
  least_rate: "Least rate",
  shutter: "Shutter",
  light: "Light",
  filter: "Filter",
  low_light: "Darkest",
  editing: "Your computer",
};

/** Light, shutter, filter, gain and slowing of a stretch; asked for only while it is open. */
export function Picture(props: Props) {
  const [open, setOpen] = useState(false);
  return (
    <details className="strip-more" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>Light and settings</summary>
      {open ? <Sums {...props} /> : null}
    </details>
  );
}

/** Each sum with how it was reckoned. */
function Sums({ document, plan, camera, item }: Props) {
  const ask = useMemo(
    () => ({ document: { ...document, plan }, camera, item }),
    [document, plan, camera, item],
  );
  const told = usePumped(tellPicture, ask);
  if (told.error !== null) return <p role="alert">{told.error}</p>;
  if (told.result === null) return <p role="status">Reckoning…</p>;
  return (
    <dl className="picture-sums">
      {told.result.sums.map((one) => (
        <div key={one.what} className={one.good ? "" : "not-good"}>
          <dt className="label">
            {one.good ? "" : "! "}
            {NAMES[one.what]}
          </dt>
          <dd>
            {one.text}
            {one.how === "" ? null : <small className="label">{one.how}</small>}
          </dd>
        </div>
      ))}
    </dl>
  );
}
