import type { Cord, RunEnd } from "../domain/types";

interface Props {
  end: RunEnd | Cord["end"] | undefined;
  x: number;
  y: number;
  /** Half the width of the cord's end. */
  half: number;
}

/** How a cord ends: toothed hot, flat empty (blue where the cold holds it), notched card, knot clip limit, an open arrow goes on. */
export function CordEnd({ end, x, y, half }: Props) {
  switch (end) {
    case "hot":
      return (
        <path
          d={`M${String(x - half)} ${String(y)}h${String(2 * half)}v12l${String(-half / 2)} -7l${String(-half / 2)} 7l${String(-half / 2)} -7l${String(-half / 2)} 7z`}
          fill="var(--ember)"
        />
      );
    case "empty":
    case "both_empty":
      return <rect x={x - half} y={y} width={2 * half} height={6} fill="var(--ink)" />;
    case "cold":
      return <rect x={x - half} y={y} width={2 * half} height={6} fill="var(--frost)" />;
    case "card_full":
      return (
        <path
          d={`M${String(x - half)} ${String(y)}h${String(2 * half)}v9h${String(-half + 4)}v-5h-8v5h${String(-half + 4)}z`}
          fill="var(--card)"
        />
      );
    case "clip_limit":
      return (
        <circle cx={x} cy={y + 5} r={7} fill="var(--paper)" stroke="var(--ink)" strokeWidth={3} />
      );
    case "stopped":
    case "full":
    case null:
    case undefined:
      return (
        <path
          d={`M${String(x)} ${String(y)}v10m-6 -6l6 7l6 -7`}
          fill="none"
          stroke="var(--rope)"
          strokeWidth={1.8}
        />
      );
  }
}
