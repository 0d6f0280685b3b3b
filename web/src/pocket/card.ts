import {
  type Card,
  type CardMove,
  type CardPlace,
  clockText,
  isUnderWay,
  lengthText,
  moveText,
  nextStop,
  placeAt,
  stopBefore,
  workAt,
} from "./now";
import { lastTicked, stateOf, type TickKind, tickOf, type TickStore } from "./ticks";
import { button, drawInto, h, minuteText } from "./drawing";
import { paper } from "./paper";
import { cautions, films, handsBusy, shots } from "./told";
import "./pocket.css";

export interface Options {
  card: Card;
  /** When the card was made, ISO; none on the page itself. */
  made: string | null;
  store: TickStore;
  now: () => Date;
  /** Whether it stands alone, with its own night and its ticks to carry home. */
  alone: boolean;
}

/** A card that is on the screen. */
export interface Mounted {
  /** Draws anew after what is ticked, or what keeping it is like, has changed elsewhere. */
  draw: () => void;
  /** Takes another version of the card, at the stop that is looked at. */
  show: (card: Card) => void;
  end: () => void;
}

const MINUTE_MS = 60_000;
const NIGHTS = ["light", "dim", "black"] as const;

/** A card drawn into an element, and drawn anew when something is ticked or a minute is over. */
class PocketCard implements Mounted {
  private card: Card;
  private readonly store: TickStore;
  private readonly now: () => Date;
  private chosen: number | null = null;
  private said = "";
  /** What is being typed at a stop and is not noted yet. */
  private readonly typed = new Map<string, string>();
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly root: HTMLElement,
    private readonly options: Options,
  ) {
    this.card = options.card;
    this.store = options.store;
    this.now = options.now;
  }

  start(): void {
    this.draw();
    this.everyMinute();
  }

  end(): void {
    clearTimeout(this.timer);
  }

  show(card: Card): void {
    const item = this.chosen === null ? undefined : this.card.places[this.chosen]?.item;
    const place = card.places.findIndex((one) => one.item === item);
    this.card = card;
    this.chosen = place < 0 ? null : place;
    this.draw();
  }

  draw(focus: string | null = null): void {
    drawInto(this.root, this.page());
    if (focus === null) return;
    const found = this.root.querySelector<HTMLElement>(focus);
    (found ?? this.root.querySelector<HTMLElement>(".pocket-place"))?.focus();
  }

  private shown(): number {
    return this.chosen ?? placeAt(this.card, this.now());
  }

  private tick(kind: TickKind, move: string, text = ""): void {
    this.store.add(tickOf(kind, move, text));
    const worded = kind === "note" || kind === "reading";
    this.draw(worded ? ".pocket-note" : "[data-focus]");
  }

  private go(place: number | null): void {
    this.chosen = place;
    this.draw(".pocket-place");
  }

  private page(): Node[] {
    const number = this.shown();
    const place = this.card.places[number];
    if (place === undefined) return [h("p", {}, "This trip has no stops yet.")];
    return [
      this.head(place, number),
      ...this.body(place, number),
      this.foot(number),
      paper(this.card, this.options.made ?? this.now().toISOString()),
    ].filter((one): one is HTMLElement => one !== null);
  }

  private head(place: CardPlace, number: number): HTMLElement {
    const at = this.now();
    const under = isUnderWay(this.card, at);
    const here = under && placeAt(this.card, at) === number;
    const work = workAt(this.card, place, this.store.all(), at);
    const count = place.moves.length;
    return h(
      "header",
      { class: "pocket-head" },
      h("b", { class: "pocket-clock" }, under ? clockText(this.card, at) : place.start),
      h("h1", { class: "pocket-place", tabindex: "-1" }, `${place.name}, until ${place.end}`),
      h(
        "span",
        {},
        [
          here ? "now" : under ? `${dayText(place)}, not now` : `${dayText(place)}, by the plan`,
          count > 0 ? `${String(work.done)} of ${String(count)} done` : "",
        ]
          .filter(Boolean)
          .join(" · "),
      ),
    );
  }

  private body(place: CardPlace, number: number): (HTMLElement | null)[] {
    if (!place.hands_free)
      return [handsBusy(this.card, number), films(place), shots(place), cautions(place)];
    return [
      this.moves(place),
      this.time(place),
      films(place),
      shots(place),
      cautions(place),
      this.words(place),
    ];
  }

  private moves(place: CardPlace): HTMLElement {
    const states = stateOf(this.store.all());
    const { current } = workAt(this.card, place, this.store.all(), this.now());
    if (place.moves.length === 0)
      return h("p", { class: "pocket-none" }, "Nothing for the hands here.");
    return h(
      "ol",
      { class: "pocket-moves", "aria-label": "Hands now, in this order" },
      ...place.moves.map((move) => this.row(move, states.get(move.key), move === current)),
    );
  }

  private row(move: CardMove, state: "done" | "left_out" | undefined, now_: boolean): HTMLElement {
    const name = moveText(move);
    const details = [
      move.where,
      move.how,
      move.takes_s > 0 ? lengthText(move.takes_s) : "",
      move.why,
    ];
    const text = h(
      "div",
      { class: "pocket-say" },
      h("b", {}, name),
      h("span", {}, [move.clock, ...details].filter(Boolean).join(" · ")),
    );
    const classes = `pocket-move${now_ ? " current" : ""}${state === undefined ? "" : ` ${state}`}`;
    const label = (word: string) => ({
      "aria-label": `${word}: ${name}`,
      "data-key": `${word} ${move.key}`,
    });
    const buttons =
      state !== undefined
        ? [button("Undo", () => this.tick("undone", move.key), label("Undo"))]
        : now_
          ? [
              button("Leave out", () => this.tick("left_out", move.key), label("Leave out")),
              button("Done", () => this.tick("done", move.key), {
                ...label("Done"),
                class: "pocket-done",
                "data-focus": "",
              }),
            ]
          : [button("Done", () => this.tick("done", move.key), label("Done"))];
    const at = { class: classes, "data-key": move.key };
    return h("li", at, h("i", {}, String(move.number)), text, ...buttons);
  }

  private time(place: CardPlace): HTMLElement {
    const work = workAt(this.card, place, this.store.all(), this.now());
    const next = nextStop(this.card, this.card.places.indexOf(place));
    const after =
      next === null
        ? ""
        : ` After it the next stop is ${this.card.places[next]?.name ?? ""}, ${this.card.places[next]?.start ?? ""}.`;
    const asleep = place.asleep === "" ? "" : ` Asleep ${place.asleep}.`;
    const full = this.card.full_by
      .filter((one) => place.start_ms < one.at_ms && one.at_ms <= place.end_ms)
      .map((one) => ` ${one.say}.`)
      .join("");
    if (work.leave.length > 0)
      return h(
        "p",
        { class: "pocket-time short", role: "status" },
        `Short of time: ${lengthText(work.needs_s)} of work in ${lengthText(work.has_s)}. Leave out first: ${work.leave
          .map((one) => `${one.camera} ${one.say}`.trim())
          .join(", then ")}.`,
      );
    const spare = work.has_s - work.needs_s;
    return h(
      "p",
      { class: "pocket-time", role: "status" },
      `${lengthText(spare)} in hand until ${place.end}.${after}${asleep}${full}`,
    );
  }

  /** A note or a reading ("shows 40 %", "28 GB left") of this stop, in one line. */
  private words(place: CardPlace): HTMLElement {
    const input = h("input", {
      class: "pocket-note",
      "data-key": `note ${place.item}`,
      "aria-label": "Note or reading, in one line",
      maxlength: "200",
      placeholder: "shows 40 %, 28 GB left, lens cap lost",
    }) as HTMLInputElement;
    input.value = this.typed.get(place.item) ?? "";
    const keep = () => this.note(place.item);
    input.oninput = (event) =>
      this.typed.set(place.item, (event.currentTarget as HTMLInputElement).value);
    input.onkeydown = (event) => {
      if (event.key === "Enter") keep();
    };
    const kept = this.store.all().filter((one) => one.move === place.item && one.text !== "");
    return h(
      "section",
      { class: "pocket-words", "data-key": `words ${place.item}` },
      h("div", { class: "pocket-line" }, input, button("Note it", keep)),
      kept.length === 0 ? null : h("ul", {}, ...kept.map((one) => h("li", {}, one.text))),
    );
  }

  private note(item: string): void {
    const text = (this.typed.get(item) ?? "").trim();
    const input = this.root.querySelector<HTMLInputElement>(".pocket-note");
    if (text === "") {
      input?.focus(); // to be typed first
      return;
    }
    this.typed.delete(item);
    if (input !== null) input.value = "";
    this.tick(/\d/.test(text) ? "reading" : "note", item, text);
  }

  private foot(number: number): HTMLElement {
    const [before, next] = [stopBefore(this.card, number), nextStop(this.card, number)];
    const last = lastTicked(this.store.all());
    return h(
      "footer",
      { class: "pocket-foot" },
      h(
        "div",
        { class: "pocket-ways" },
        button("Stop before", () => this.go(before), before === null ? { disabled: "" } : {}),
        button("Next stop", () => this.go(next), next === null ? { disabled: "" } : {}),
        button("By the clock", () => this.go(null), this.chosen === null ? { disabled: "" } : {}),
        button("Night", turnNight),
        button(
          "Undo last",
          () => this.tick("undone", last?.move ?? ""),
          last === null ? { disabled: "" } : {},
        ),
      ),
      this.options.alone ? this.carried() : null,
      h(
        "p",
        { class: "pocket-said", role: "status" },
        this.said === "" ? this.store.said() : this.said,
      ),
      h(
        "p",
        {},
        `${this.card.trip}, plan ${this.card.revision}${this.options.made === null ? "" : `, made ${minuteText(this.options.made)}`}. Touch cameras only where hands are free; local law, event and carrier rules and makers' instructions come first.`,
      ),
    );
  }

  /** What a card that stands alone has besides: its night, and its ticks to carry home. */
  private carried(): HTMLElement {
    const text = JSON.stringify({
      card: this.card.revision,
      trip: this.card.trip,
      ticks: this.store.all(),
    });
    return h(
      "div",
      { class: "pocket-ways" },
      button("Save ticks", () => {
        const link = h("a", {
          href: `data:application/json;charset=utf-8,${encodeURIComponent(text)}`,
          download: `ticks-${this.card.revision}.json`,
        });
        link.click();
        this.say("Saved as a file: open it under Day card on the page.");
      }),
      button("Copy ticks", () => {
        navigator.clipboard.writeText(text).then(
          () => this.say("Copied: paste them under Day card on the page."),
          () => this.say("This browser copies nothing here: save them as a file."),
        );
      }),
    );
  }

  private say(text: string): void {
    this.said = text;
    const line = this.root.querySelector(".pocket-said");
    if (line !== null) line.textContent = text;
  }

  private everyMinute(): void {
    this.timer = setTimeout(
      () => {
        this.draw();
        this.everyMinute();
      },
      MINUTE_MS - (this.now().getTime() % MINUTE_MS),
    );
  }
}

/** Draws a card and keeps it going until it is ended. */
export function mountCard(root: HTMLElement, options: Options): Mounted {
  const drawn = new PocketCard(root, options);
  drawn.start();
  return drawn;
}

/** Light, dim for a head torch, and black with red ink. */
function turnNight(): void {
  const root = document.documentElement;
  const place = NIGHTS.findIndex((one) => one === root.dataset["theme"]);
  root.dataset["theme"] = NIGHTS[(place + 1) % NIGHTS.length] ?? "light";
}

function dayText(place: CardPlace): string {
  return place.day;
}
