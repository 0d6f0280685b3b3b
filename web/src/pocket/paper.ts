import { h, minuteText } from "./drawing";
import { type Card, type CardPlace, moveText } from "./now";

/** Every stop with its work and boxes to tick, a day a page: for print alone. */
export function paper(card: Card, made: string): HTMLElement {
  const days = [...new Set(card.places.map((one) => one.day))];
  const stops = card.places.filter((one) => one.hands_free && one.moves.length > 0);
  return h(
    "section",
    { class: "pocket-paper", "aria-hidden": "true" },
    ...days
      .filter((day) => stops.some((one) => one.day === day))
      .map((day) =>
        h(
          "section",
          {},
          h("h2", {}, `${card.trip}, ${day}. Plan ${card.revision}, ${minuteText(made)}`),
          ...stops.filter((one) => one.day === day).map(paperStop),
        ),
      ),
  );
}

function paperStop(place: CardPlace): HTMLElement {
  const lines = [
    ...place.films.map((one) => `${one.camera} ${one.what}, to ${one.until}: ${one.ends}`),
    ...place.shots.map((one) => `Wanted: ${one.name}, ${one.importance}, ${one.on}`),
    ...place.cautions,
  ];
  return h(
    "article",
    {},
    h("h3", {}, `${place.start} to ${place.end}  ${place.name}`),
    h(
      "ol",
      {},
      ...place.moves.map((one) =>
        h(
          "li",
          {},
          h("i", {}),
          h("b", {}, `${one.clock} ${moveText(one)}`),
          ` ${[one.where, one.how, one.why].filter(Boolean).join(" · ")}`,
        ),
      ),
    ),
    ...lines.map((one) => h("p", {}, one)),
  );
}
