import { useEffect } from "react";

/** What the browser's tab and history say: the place, and the trip where it is of one. */
export function useTitle(...parts: readonly (string | undefined)[]): void {
  const title = [...parts.filter(Boolean), "Tumbrel"].join(" · ");
  useEffect(() => {
    document.title = title;
  }, [title]);
}
