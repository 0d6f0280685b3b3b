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
      aria-label={
        metric
          ? "Tell in imperial measures: °F, feet, miles an hour, ounces"
          : "Tell in metric measures: °C, metres, metres a second, grams"
      }
    >
      {metric ? "°F, ft" : "°C, m"}
    </button>
  );
}
