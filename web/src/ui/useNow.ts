import { useEffect, useState } from "react";

/** The clock [ms since 1970], anew every `everyMs` while `on`; right at once after a sleep. */
export function useNow(everyMs: number, on: boolean): number {
  const [now, setNow] = useState(Date.now);
  useEffect(() => {
    if (!on) return;
    const look = () => setNow(Date.now());
    look();
    const timer = setInterval(look, everyMs);
    document.addEventListener("visibilitychange", look);
    return () => {
      clearInterval(timer);
      document.removeEventListener("visibilitychange", look);
    };
  }, [everyMs, on]);
  return now;
}
