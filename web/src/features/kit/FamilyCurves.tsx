import { useMemo } from "react";
import { tellFamily } from "../../api/queries";
import { usePumped } from "../../api/usePumped";
import { MinuteRail } from "../../board/MinuteRail";
import * as limits from "../../domain/limits";
import type { BatteryFamily, FamilyTold, Kit } from "../../domain/types";
import { degreesText, minutesText, percentText, wattsText } from "../../domain/units";
import { NumberIn, PercentIn } from "../../ui/fields";

interface Props {
  kit: Kit;
  unit: BatteryFamily;
  change: (part: Partial<BatteryFamily>) => void;
}

type Fill = FamilyTold["fills"][number];

const WIDTH = 300;
const LEFT = 52;
const RIGHT = 286;
const TOP = 26;
const HANG_PX = 132;
const FOOT = TOP + HANG_PX + 8;
const DASHES = [undefined, "7 3", "2 3", "9 3 2 3", "1 4"];
const SHARES = [0, 0.25, 0.5, 0.75, 1];

/** What a family gives in the cold, which may be measured, and how it fills at each place. */
export function FamilyCurves({ kit, unit, change }: Props) {
  const question = useMemo(() => ({ kit, family: unit.id }), [kit, unit.id]);
  const { result: told, error } = usePumped(tellFamily, question);
  if (error) return <p role="alert">{error}</p>;
  if (told === null) return null;
  return (
    <>
      <h3>What it gives in the cold</h3>
      <ColdPicture told={told} />
      <ColdPoints unit={unit} told={told} change={change} />
      <h3>How it fills from empty</h3>
      <FillPicture told={told} />
      <ul className="plain-list label">
        {told.fills.map((fill, place) => (
          <li key={fill.where}>
            <Dash place={place} /> {fill.where}: {fillText(fill)}
          </li>
        ))}
      </ul>
    </>
  );
}

function fillText(fill: Fill): string {
  const times = `80 % in ${minutesText(fill.to_80_min)}, full in ${minutesText(fill.full_min)}`;
  const cool = fill.cool_80_min > fill.to_80_min ? `; cool ${minutesText(fill.cool_80_min)}` : "";
  return `${times}${cool}. ${fill.binds} binds, ${wattsText(fill.binds_w)}.`;
}

function Dash({ place }: { place: number }) {
  return (
    <svg width={26} height={8} aria-hidden="true">
      <line x1={0} x2={26} y1={4} y2={4} {...stroke(place)} />
    </svg>
  );
}

function stroke(place: number) {
  return {
    stroke: place === 0 ? "var(--rope)" : "var(--ink)",
    strokeWidth: place === 0 ? 3 : 1.5,
    strokeDasharray: DASHES[place % DASHES.length],
  };
}

const across = (share: number) => LEFT + share * (RIGHT - LEFT);

function Shares() {
  return (
    <>
      {SHARES.map((share) => (
        <g key={share}>
          <line x1={across(share)} x2={across(share)} y1={TOP - 4} y2={TOP} stroke="var(--ink)" />
          <text x={across(share)} y={TOP - 9} textAnchor="middle" fontSize={13} fill="var(--ink-2)">
            {share === 1 ? "all" : percentText(share)}
          </text>
        </g>
      ))}
      <line x1={LEFT} x2={RIGHT} y1={TOP} y2={TOP} stroke="var(--ink)" strokeWidth={1.4} />
    </>
  );
}

/** Colder downwards: how far a full cell reaches, new, and of each health that is carried. */
function ColdPicture({ told }: { told: FamilyTold }) {
  const [warm, cold] = [told.temps_c[0] ?? 25, told.temps_c.at(-1) ?? -30];
  const y = (at: number) => TOP + ((warm - at) / (warm - cold)) * HANG_PX;
  const line = (shares: readonly number[]) =>
    shares
      .map((share, n) => {
        const point = `${across(share).toFixed(1)} ${y(told.temps_c[n] ?? 0).toFixed(1)}`;
        return `${n === 0 ? "M" : "L"}${point}`;
      })
      .join("");
  const fresh = told.cold[0];
  const at20 = (shares: readonly number[]) => percentText(shares[told.temps_c.indexOf(-20)] ?? 0);
  const shown = told.cold.filter((_, n) => n === 0 || n === told.cold.length - 1);
  const between = told.cold.slice(1, -1).flatMap((one) => one.names);
  const words = shown.map((one) => `${healthName(one)} ${at20(one.shares)}`).join("; ");
  return (
    <>
      <svg
        width={WIDTH}
        height={FOOT}
        role="img"
        className="label"
        aria-label={`At ${degreesText(-20)} a full cell gives: ${words}`}
      >
        <Shares />
        {[20, 0, -20].map((at) => (
          <g key={at}>
            <line
              x1={LEFT}
              x2={RIGHT}
              y1={y(at)}
              y2={y(at)}
              stroke="var(--rule)"
              strokeWidth={0.7}
            />
            <text x={LEFT - 6} y={y(at) + 4.5} textAnchor="end" fontSize={13} fill="var(--ink-2)">
              {degreesText(at)}
            </text>
          </g>
        ))}
        {fresh === undefined ? null : (
          <path
            d={`${line(fresh.shares)}L${String(LEFT)} ${String(TOP + HANG_PX)}L${String(LEFT)} ${String(TOP)}z`}
            fill="var(--rope-ground)"
          />
        )}
        {shown.map((one, place) => (
          <path key={one.health} d={line(one.shares)} fill="none" {...stroke(place)} />
        ))}
      </svg>
      <ul className="plain-list label">
        {shown.map((one, place) => (
          <li key={one.health}>
            <Dash place={place} /> {healthName(one)}
            {one.names.length === 0 ? "" : ` (${one.names.join(", ")})`}: {at20(one.shares)} at{" "}
            {degreesText(-20)}
          </li>
        ))}
        {between.length === 0 ? null : <li>Between them lie {between.join(", ")}.</li>}
      </ul>
    </>
  );
}

function healthName({ health }: FamilyTold["cold"][number]): string {
  return health === 1 ? "new" : `worn to ${percentText(health)}`;
}

/** The curve as measured, point by point; or the typical one. */
function ColdPoints({ unit, told, change }: Omit<Props, "kit"> & { told: FamilyTold }) {
  const points = unit.available;
  const put = (place: number, part: Partial<(typeof points)[number]>) =>
    change({ available: points.map((one, n) => (n === place ? { ...one, ...part } : one)) });
  if (points.length === 0)
    return (
      <p className="row">
        Typical.{" "}
        <button
          type="button"
          className="plain link"
          onClick={() => change({ available: [...told.typical] })}
        >
          Change the curve to what you measured
        </button>
      </p>
    );
  return (
    <div role="group" aria-label="Measured in the cold">
      {points.map((point, place) => (
        <div key={place} className="row fields">
          <NumberIn
            label="At"
            unit="°C"
            value={point.cell_c}
            {...limits.AvailableAt.cell_c}
            onCommit={(cell_c) => put(place, { cell_c })}
          />
          <PercentIn
            label="gives"
            value={point.share}
            onCommit={(share) => put(place, { share })}
          />
        </div>
      ))}
      <button type="button" className="plain link" onClick={() => change({ available: [] })}>
        Back to the typical curve
      </button>
    </div>
  );
}

/** Charge to the right as minutes go down, at each place where the family can fill. */
function FillPicture({ told }: { told: FamilyTold }) {
  const maxMin = Math.max(1, ...told.fills.map((one) => one.full_min));
  const pxPerMin = HANG_PX / maxMin;
  const y = (minutes: number) => TOP + minutes * pxPerMin;
  return (
    <svg
      width={WIDTH}
      height={FOOT}
      role="img"
      className="label"
      aria-label={`Filled from empty: ${told.fills.map((one) => `${one.where} ${fillText(one)}`).join(" ")}`}
    >
      <MinuteRail x0={LEFT} x1={RIGHT} maxMin={maxMin} pxPerMin={pxPerMin} y={y} />
      <Shares />
      {told.fills.map((fill, place) => (
        <path
          key={fill.where}
          fill="none"
          {...stroke(place)}
          d={fill.minutes
            .map((minutes, n) => {
              const point = `${across(fill.charge[n] ?? 0).toFixed(1)} ${y(minutes).toFixed(1)}`;
              return `${n === 0 ? "M" : "L"}${point}`;
            })
            .join("")}
        />
      ))}
    </svg>
  );
}
