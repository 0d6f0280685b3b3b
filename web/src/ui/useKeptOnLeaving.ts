import { useEffect, useRef } from "react";

/** Going to another place, or closing the page, keeps what was drafted: nothing is lost. */
export function useKeptOnLeaving(keep: () => void): void {
  const now = useRef(keep);
  useEffect(() => {
    now.current = keep;
  }, [keep]);
  useEffect(() => {
    const leaving = () => now.current();
    addEventListener("pagehide", leaving);
    return () => {
      removeEventListener("pagehide", leaving);
      leaving();
    };
  }, []);
}
