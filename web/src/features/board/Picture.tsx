import { tellPicture } from "../../api/queries";
import { usePumped } from "../../api/usePumped";
import { useMemo } from "react";
import type { PictureTold, PlanDocument } from "../../domain/types";

interface Props {
  document: PlanDocument;
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

/** Light, shutter, filter, gain and slowing of a stretch, each with how it was reckoned. */
export function Picture({ document, camera, item }: Props) {
  const ask = useMemo(() => ({ document, camera, item }), [document, camera, item]);
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
