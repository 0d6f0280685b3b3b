import { useEffect } from "react";
import { useSearchParams } from "react-router";

/** Leads to the field that a finding named: `?at=kit.batteries[4]` brings it into view and focus. */
export function useLedTo(ready: boolean): string | null {
  const [query] = useSearchParams();
  const path = query.get("at");
  useEffect(() => {
    if (!ready || path === null) return;
    const fields = [...document.querySelectorAll<HTMLElement>("[data-path]")];
    const field =
      fields.find((one) => one.dataset["path"] === path) ??
      fields.find((one) => one.dataset["path"]?.startsWith(path) === true);
    field?.scrollIntoView({ block: "center" });
    field?.focus();
  }, [ready, path]);
  return path;
}
