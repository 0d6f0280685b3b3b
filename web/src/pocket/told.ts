import { h } from "./drawing";
import { type Card, type CardPlace, moveText, nextStop } from "./now";

/** While hands are not free: the next stop alone, and what must be ready there. */
export function handsBusy(card: Card, number: number): HTMLElement {
  const next = nextStop(card, number);
  const stop = next === null ? undefined : card.places[next];
  if (stop === undefined)
    return h("p", { class: "pocket-busy" }, "Hands are not free. No stop follows.");
  return h(
    "section",
    { class: "pocket-busy" },
    h("h2", {}, "Hands are not free"),
    h("p", { class: "pocket-next" }, `Next: ${stop.name}, ${stop.start}`),
    stop.moves.length === 0
      ? h("p", {}, "Nothing is to be done there.")
      : h("ul", {}, ...ready(stop).map((one) => h("li", {}, one))),
  );
}

/** What films at a place, how long, and what ends it. */
export function films(place: CardPlace): HTMLElement | null {
  if (place.films.length === 0) return null;
  const title = place.kind === "stop" ? "Films from here on" : "Films now";
  return h(
    "section",
    { class: "pocket-films" },
    h("h2", {}, title),
    h(
      "ul",
      {},
      ...place.films.map((one) =>
        h("li", {}, h("b", {}, one.camera), ` ${one.what}, to ${one.until}: ${one.ends}`),
      ),
    ),
  );
}

/** The moments that are wanted. */
export function shots(place: CardPlace): HTMLElement | null {
  if (place.shots.length === 0) return null;
  return h(
    "section",
    { class: "pocket-shots" },
    h("h2", {}, place.kind === "stop" ? "Wanted on the next leg" : "Wanted here"),
    h(
      "ul",
      {},
      ...place.shots.map((one) =>
        h(
          "li",
          {},
          h("b", {}, one.name),
          ` ${one.count > 1 ? `${String(one.count)} times, ` : ""}${one.importance}, ${one.on}`,
        ),
      ),
    ),
  );
}

/** What to mind. */
export function cautions(place: CardPlace): HTMLElement | null {
  if (place.cautions.length === 0) return null;
  return h(
    "section",
    { class: "pocket-cautions" },
    h("h2", {}, "Mind"),
    ...place.cautions.map((one) => h("p", {}, one)),
  );
}

function ready(stop: CardPlace): string[] {
  return stop.moves.map((one) => [moveText(one), one.where].filter(Boolean).join(" · "));
}
