/** The range within which a minute lies. */
export function Bracket({ x, y0, y1 }: { x: number; y0: number; y1: number }) {
  return (
    <path
      d={`M${String(x - 3)} ${String(y0)}h5v${String(y1 - y0)}h-5`}
      fill="none"
      stroke="var(--ink-2)"
      strokeWidth={1.1}
    />
  );
}
