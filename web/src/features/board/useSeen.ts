import { type RefObject, useEffect, useMemo, useState } from "react";
import type { Band, Elastic } from "../../scale/elastic";

const BLOCK_PX = 800;
/** Below this all of it is drawn: looking what is seen costs more than it spares. */
const LONG_PX = 3200;

/**
 * Of a long board only what is near the view, in whole blocks, so that scrolling draws seldom;
 * `always` is drawn wherever it is.
 */
export function useSeen(
  field: RefObject<HTMLElement | null>,
  scroll: RefObject<HTMLElement | null>,
  scale: Elastic,
  always: string | null,
): Elastic {
  const long = scale.height > LONG_PX;
  const [block, setBlock] = useState(0);
  useEffect(() => {
    if (!long) return;
    let asked = 0;
    const look = () => {
      asked = 0;
      const top = field.current?.getBoundingClientRect().top ?? 0;
      setBlock(Math.max(0, Math.floor(-top / BLOCK_PX)));
    };
    const soon = () => {
      if (asked === 0) asked = requestAnimationFrame(look);
    };
    look();
    // the board scrolls by itself; where the window is small, with the page
    const scrolled = [globalThis, scroll.current].filter((one) => one !== null);
    for (const one of scrolled) one.addEventListener("scroll", soon, { passive: true });
    addEventListener("resize", soon);
    return () => {
      cancelAnimationFrame(asked);
      for (const one of scrolled) one.removeEventListener("scroll", soon);
      removeEventListener("resize", soon);
    };
  }, [field, scroll, long]);
  return useMemo(() => (long ? seen(scale, block, always) : scale), [scale, long, block, always]);
}

function seen(scale: Elastic, block: number, always: string | null): Elastic {
  const from = (block - 1) * BLOCK_PX;
  const to = block * BLOCK_PX + innerHeight + BLOCK_PX;
  const near = (band: Band) => (band.y1 > from && band.y0 < to) || band.id === always;
  return { ...scale, bands: scale.bands.filter(near) };
}

/** The time that bands cover, as a window to draw. */
export function windowOf(
  seenScale: Elastic,
  whole: { startMs: number; endMs: number },
  always: string | null,
): { startMs: number; endMs: number } {
  const near = seenScale.bands.filter((one) => one.id !== always || seenScale.bands.length < 2);
  const startMs = near[0]?.startMs ?? whole.startMs;
  const endMs = near.at(-1)?.endMs ?? whole.endMs;
  return { startMs, endMs };
}
