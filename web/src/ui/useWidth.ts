import { type RefObject, useLayoutEffect, useState } from "react";

/** The width of an element in px, kept up to date. */
export function useWidth(ref: RefObject<HTMLElement | null>, first: number): number {
  return useMeasured(ref, first, (element) => element.clientWidth);
}

/** The height of an element in px, kept up to date. */
export function useHeight(ref: RefObject<HTMLElement | null>, first: number): number {
  return useMeasured(ref, first, (element) => element.clientHeight);
}

function useMeasured(
  ref: RefObject<HTMLElement | null>,
  first: number,
  of: (element: HTMLElement) => number,
): number {
  const [size, setSize] = useState(first);
  useLayoutEffect(() => {
    const element = ref.current;
    if (element === null) return;
    const measure = () => setSize(Math.floor(of(element)));
    measure();
    const watcher = new ResizeObserver(measure);
    watcher.observe(element);
    return () => watcher.disconnect();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what is measured never changes
  }, [ref]);
  return size;
}
