import { chooseMeasures, measures } from "../domain/measures";

/** Metric or imperial; the page is drawn anew, since every sentence is told anew. */
export function MeasuresToggle() {
  const metric = measures() === "metric";
  return (
    <button
      type="button"
      className="plain tool"
      onClick={() => {
        chooseMeasures(metric ? "imperial" : "metric");
        window.location.reload();
      }}
      aria-label={metric ? "°F, ft: tell in imperial measures" : "°C, m: tell in metric measures"}
    >
      {metric ? "°F, ft" : "°C, m"}
    </button>
  );
}
