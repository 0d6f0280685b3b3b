import { type RefObject, useLayoutEffect, useState } from "react";

const widthOf = (element: HTMLElement) => element.clientWidth;
const heightOf = (element: HTMLElement) => element.clientHeight;

/** The width of an element in px, kept up to date. */
export function useWidth(ref: RefObject<HTMLElement | null>, first: number): number {
  return useMeasured(ref, first, widthOf);
}

/** The height of an element in px, kept up to date. */
export function useHeight(ref: RefObject<HTMLElement | null>, first: number): number {
  return useMeasured(ref, first, heightOf);
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
  }, [ref, of]);
  return size;
}
