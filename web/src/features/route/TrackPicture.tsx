import { Slider } from "@mui/material";
import { type PointerEvent, useRef, useState } from "react";
import { hereAt, scaleBar } from "../../domain/track";
import type { TrackLaid } from "../../domain/types";
import { kilometresText } from "../../domain/units";
import { useWidth } from "../../ui/useWidth";

const PLAN_PX = 300;
const PROFILE = { height: 190, left: 58, foot: 26, top: 14 };
const EDGE_PX = 18;
const SIDE_BY_SIDE_PX = 760;

/** The way from above and from the side; one place on both, by pointer or keys. */
export function TrackPicture({ laid }: { laid: TrackLaid }) {
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame, 1100);
  const [share, setShare] = useState(0);
  const side = width >= SIDE_BY_SIDE_PX;
  const planWidth = side ? 380 : width;
  const profileWidth = side ? width - planWidth - 30 : width;
  const here = hereAt(laid, share);
  const leg = laid.items.filter((one) => one.kind === "leg")[here.leg];
  const words = `${kilometresText(here.along)}, ${String(Math.round(here.height))} m, ${leg?.name ?? ""}`;
  return (
    <div ref={frame} className="track-picture">
      <div className={side ? "look-pictures side" : "look-pictures"}>
        <PlanView laid={laid} width={planWidth} here={here} />
        <div style={{ width: profileWidth }}>
          <ProfileView laid={laid} width={profileWidth} share={share} onShare={setShare} />
          <div style={{ paddingLeft: PROFILE.left, paddingRight: 8 }}>
            <Slider
              value={Math.round(share * 1000)}
              min={0}
              max={1000}
              shiftStep={50}
              onChange={(_, value) => setShare((value as number) / 1000)}
              aria-label="Along the way"
              getAriaValueText={() => words}
            />
          </div>
          <p className="label">{words}</p>
        </div>
      </div>
    </div>
  );
}

interface PlanProps {
  laid: TrackLaid;
  width: number;
  here: ReturnType<typeof hereAt>;
}

function PlanView({ laid, width, here }: PlanProps) {
  const { x_m, y_m, along_m, starts_m } = laid.picture;
  const [west, east] = [Math.min(...x_m), Math.max(...x_m)];
  const [south, north] = [Math.min(...y_m), Math.max(...y_m)];
  const free = { x: width - 2 * EDGE_PX, y: PLAN_PX - 2 * EDGE_PX - 24 };
  const scale = Math.min(free.x / Math.max(1, east - west), free.y / Math.max(1, north - south));
  const x = (metres: number) => width / 2 + (metres - (west + east) / 2) * scale;
  const y = (metres: number) => EDGE_PX + free.y / 2 - (metres - (south + north) / 2) * scale;
  const bar = scaleBar((0.4 * width) / scale);
  const path = x_m.map((one, n) => `${x(one).toFixed(1)} ${y(y_m[n] ?? 0).toFixed(1)}`).join("L");
  const cuts = starts_m.slice(1).map((start) => along_m.findIndex((one) => one >= start));
  return (
    <svg
      width={width}
      height={PLAN_PX}
      role="img"
      aria-label={`The way from above, ${kilometresText(laid.length_m)} long, north up`}
      className="label"
    >
      <path
        d={`M${path}`}
        fill="none"
        stroke="var(--rope)"
        strokeWidth={3}
        strokeLinejoin="round"
      />
      {cuts.map((place) => (
        <circle
          key={place}
          cx={x(x_m[place] ?? 0)}
          cy={y(y_m[place] ?? 0)}
          r={3.4}
          fill="var(--paper)"
          stroke="var(--ink)"
          strokeWidth={1.4}
        />
      ))}
      <rect
        x={x(x_m[0] ?? 0) - 5}
        y={y(y_m[0] ?? 0) - 5}
        width={10}
        height={10}
        fill="var(--ink)"
      />
      <circle
        cx={x(here.x)}
        cy={y(here.y)}
        r={6}
        fill="var(--act)"
        stroke="var(--paper)"
        strokeWidth={2}
      />
      <path
        d={`M${String(EDGE_PX)} ${String(PLAN_PX - 14)}v6h${(bar * scale).toFixed(1)}v-6`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={1.4}
      />
      <text x={EDGE_PX + 4} y={PLAN_PX - 13} fontSize={13} fill="var(--ink)">
        {kilometresText(bar)}
      </text>
      <g transform={`translate(${String(width - 22)} 16)`}>
        <path d="M0 22V2M-5 8L0 1L5 8" fill="none" stroke="var(--ink)" strokeWidth={1.6} />
        <text x={0} y={38} textAnchor="middle" fontSize={13} fill="var(--ink)">
          N
        </text>
      </g>
    </svg>
  );
}

interface ProfileProps {
  laid: TrackLaid;
  width: number;
  share: number;
  onShare: (share: number) => void;
}

function ProfileView({ laid, width, share, onShare }: ProfileProps) {
  const { along_m, height_m, starts_m } = laid.picture;
  const [low, high] = [Math.min(...height_m), Math.max(...height_m)];
  const span = Math.max(100, (high - low) * 1.1);
  const bottom = PROFILE.height - PROFILE.foot;
  const x = (metres: number) =>
    PROFILE.left + (metres / Math.max(1, laid.length_m)) * (width - PROFILE.left - 8);
  const y = (metres: number) => bottom - ((metres - low) / span) * (bottom - PROFILE.top);
  const line = along_m
    .map((metres, n) => `${x(metres).toFixed(1)} ${y(height_m[n] ?? 0).toFixed(1)}`)
    .join("L");
  const follow = (event: PointerEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const part = (event.clientX - box.left - PROFILE.left) / (width - PROFILE.left - 8);
    onShare(Math.min(1, Math.max(0, part)));
  };
  const at = x(share * laid.length_m);
  return (
    <svg
      width={width}
      height={PROFILE.height}
      role="img"
      aria-label={`The way from the side, ${String(Math.round(low))} to ${String(Math.round(high))} m`}
      className="label"
      onPointerMove={follow}
      onPointerDown={follow}
    >
      <path
        d={`M${x(0).toFixed(1)} ${String(bottom)}L${line}L${x(laid.length_m).toFixed(1)} ${String(bottom)}z`}
        fill="var(--rope-ground)"
        stroke="var(--rope)"
        strokeWidth={2}
      />
      {starts_m.slice(1).map((start) => (
        <line
          key={start}
          x1={x(start)}
          x2={x(start)}
          y1={PROFILE.top}
          y2={bottom + 6}
          stroke="var(--ink)"
          strokeWidth={1.2}
        />
      ))}
      {[low, high].map((metres) => (
        <text
          key={metres}
          x={PROFILE.left - 6}
          y={y(metres) + 4}
          textAnchor="end"
          fontSize={13}
          fill="var(--ink-2)"
        >
          {String(Math.round(metres))} m
        </text>
      ))}
      <line
        x1={at}
        x2={at}
        y1={PROFILE.top - 8}
        y2={bottom + 8}
        stroke="var(--act)"
        strokeWidth={2}
      />
      <text x={width - 8} y={PROFILE.height - 8} textAnchor="end" fontSize={13} fill="var(--ink-2)">
        {kilometresText(laid.length_m)}
      </text>
    </svg>
  );
}
