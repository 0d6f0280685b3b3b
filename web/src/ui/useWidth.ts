import { type RefObject, useLayoutEffect, useState } from "react";

/** The width of an element in px, kept up to date. */
export function useWidth(ref: RefObject<HTMLElement | null>, first: number): number {
  const [width, setWidth] = useState(first);
  useLayoutEffect(() => {
    const element = ref.current;
    if (element === null) return;
    const measure = () => setWidth(Math.floor(element.clientWidth));
    measure();
    const watcher = new ResizeObserver(measure);
    watcher.observe(element);
    return () => watcher.disconnect();
  }, [ref]);
  return width;
}
