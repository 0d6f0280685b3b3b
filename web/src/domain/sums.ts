import type { components } from "../api/schema";
import { shownIn, shownNumber } from "./measures";
import { parseNumber } from "./units";

export type Question = components["schemas"]["SumAsked"]["question"];
export type SumKind = Question["kind"];

/** A number or day to fill in, where the sentence leaves a blank. */
export interface Blank {
  name: string;
  label: string;
  unit: string;
  first: string;
  min: number;
  max: number;
  whole?: boolean;
  day?: boolean;
  /** Minutes that are typed as a camera shows them, "41:30". */
  shown?: boolean;
}

/** Which of several figures is wanted; it decides which sentence is read. */
export interface Wanted {
  name: "wanted";
  choices: readonly { value: string; name: string }[];
}

export interface Sum {
  kind: SumKind;
  title: string;
  /** The place of a trip where the answer is of use. */
  place: "kit" | "board" | "route";
  wanted?: Wanted;
  /** The sentence: words, and the names of blanks. */
  words: (wanted: string) => readonly (string | Blank)[];
}

const blank = (
  name: string,
  label: string,
  unit: string,
  first: number,
  min: number,
  max: number,
): Blank => ({ name, label, unit, first: String(first), min, max });

const MAH = blank("mah", "Capacity", "mA h", 1500, 0.1, 200_000);
const VOLTS = blank("volts", "Voltage", "V", 3.8, 0.1, 60);
const TEMP = blank("temp_c", "Air", "°C", 20, -60, 70);
const MBPS = blank("mbps", "Bitrate", "Mbit/s", 100, 0.1, 2000);
const FILM = blank("fps", "The film’s rate", "frames a second", 25, 1, 240);
const EVENT = blank("event_min", "Event", "min", 120, 0.1, 50_000);
const EVERY = blank("every_s", "Interval", "s", 10, 0.1, 86_400);
const SHOWN = {
  ...blank("shown_min", "Shown", "min:s", 0, 0.02, 50_000),
  first: "41:30",
  shown: true,
};
const PLAYBACK = blank("playback_s", "Playback", "s", 20, 0.1, 36_000);

export const SUMS: readonly Sum[] = [
  {
    kind: "lasts",
    title: "How long will it last?",
    place: "kit",
    words: () => [
      "A battery of",
      MAH,
      "at",
      VOLTS,
      "feeds a mode that drinks",
      blank("watts", "Draw", "W", 4, 0.01, 60),
      "in air of",
      TEMP,
      "that moves at",
      blank("air_mps", "Airflow", "m/s", 0, 0, 100),
      ". How long does a camera of",
      blank("mass_g", "Mass", "g", 70, 5, 5000),
      "record?",
    ],
  },
  {
    kind: "card",
    title: "What card, or how many hours?",
    place: "kit",
    wanted: {
      name: "wanted",
      choices: [
        { value: "hours", name: "how long a card holds" },
        { value: "card", name: "what card is wanted" },
      ],
    },
    words: (wanted) =>
      wanted === "card"
        ? ["At", MBPS, ", what card holds", blank("hours", "Time", "h", 4, 0.01, 1000), "?"]
        : [
            "At",
            MBPS,
            ", how long does a card of",
            blank("gb", "Card", "GB", 128, 1, 8192),
            "hold?",
          ],
  },
  {
    kind: "loop",
    title: "Which loop length?",
    place: "board",
    words: () => [
      "Something lasts",
      blank("event_s", "Event", "s", 60, 1, 7200),
      ", and I press",
      blank("reaction_s", "Reaction", "s", 20, 0, 7200),
      "after it. What loop of",
      { ...blank("segments", "Segments", "segments", 5, 2, 100), whole: true },
      "keeps it whole, at",
      { ...MBPS, first: "60" },
      "?",
    ],
  },
  {
    kind: "shown",
    title: "The camera shows minutes left",
    place: "kit",
    wanted: {
      name: "wanted",
      choices: [
        { value: "room", name: "how much room that is" },
        { value: "bitrate", name: "what bitrate that is" },
      ],
    },
    words: (wanted) =>
      wanted === "bitrate"
        ? [
            "The camera shows",
            SHOWN,
            "left on",
            blank("gb", "Room", "GB", 28, 0.01, 8192),
            ". What does it write?",
          ]
        : [
            "The camera shows",
            SHOWN,
            "left at",
            { ...MBPS, first: "60" },
            ". How much room is it?",
          ],
  },
  {
    kind: "timelapse",
    title: "Time-lapse",
    place: "board",
    wanted: {
      name: "wanted",
      choices: [
        { value: "playback", name: "length of the film" },
        { value: "interval", name: "interval" },
        { value: "event", name: "length of the event" },
      ],
    },
    words: (wanted) => {
      if (wanted === "interval")
        return [
          "An event of",
          EVENT,
          "is to play for",
          PLAYBACK,
          "at",
          FILM,
          ". A frame how often?",
        ];
      if (wanted === "event")
        return ["A frame every", EVERY, "is to play for", PLAYBACK, "at", FILM, ". For how long?"];
      return ["An event of", EVENT, "with a frame every", EVERY, "plays at", FILM, ". How long?"];
    },
  },
  {
    kind: "charge",
    title: "Time to charge",
    place: "board",
    words: () => [
      "A battery of",
      MAH,
      "at",
      VOLTS,
      "goes from",
      blank("from_pct", "From", "%", 20, 0, 98),
      "to",
      blank("to_pct", "To", "%", 80, 0.1, 99),
      "at a port of",
      blank("port_w", "Port", "W", 5, 0.1, 2000),
      ". By itself it is at 80 % in",
      blank("to_80_min", "Empty to 80 % in", "min", 80, 8, 600),
      ". How long?",
    ],
  },
  {
    kind: "bank",
    title: "What a power bank really gives",
    place: "kit",
    words: () => [
      "A bank of",
      blank("bank_mah", "Bank", "mA h", 10_000, 0.1, 200_000),
      "with a health of",
      blank("health", "Health, 1 when new", "of 1", 1, 0.01, 1.2),
      "at",
      TEMP,
      "fills how many batteries of",
      MAH,
      "at",
      VOLTS,
      "?",
    ],
  },
  {
    kind: "panel",
    title: "What a panel gives on a day",
    place: "kit",
    words: () => [
      "A panel of",
      blank("rated_w", "Panel", "W", 20, 0.1, 2000),
      "lies at latitude",
      blank("latitude", "Latitude", "°", 45, -90, 90),
      "on",
      { name: "day", label: "Day", unit: "", first: "2027-06-21", min: 0, max: 0, day: true },
      "under a sky that lets through",
      blank("sky", "Sky, 1 when clear", "of 1", 0.8, 0, 1),
      ", tilted by",
      blank("tilt_deg", "Tilt to the equator", "°", 0, 0, 90),
      ". How much is it?",
    ],
  },
  {
    kind: "slowing",
    title: "Slowing",
    place: "board",
    words: () => [
      "Filmed at",
      { ...FILM, label: "Filmed at", first: "120", max: 1000 },
      "and shown at",
      { ...FILM, name: "film_fps" },
      ", how much slower is it?",
    ],
  },
  {
    kind: "density",
    title: "Neutral density",
    place: "board",
    words: () => [
      "The sun stands at",
      blank("sun_deg", "Sun’s height", "°", 45, -18, 90),
      "in a sky that lets through",
      blank("sky", "Sky, 1 when clear", "of 1", 1, 0.01, 1),
      ". What filter does f/",
      blank("f_number", "Aperture", "f-number", 2.8, 0.7, 32),
      "want at",
      { ...FILM, label: "Rate", first: "30", max: 1000 },
      "and a gain of",
      blank("iso", "Gain", "ISO", 100, 25, 25_600),
      "?",
    ],
  },
  {
    kind: "transfer",
    title: "Time to copy",
    place: "board",
    words: () => [
      "Footage of",
      blank("gb", "Footage", "GB", 64, 0.1, 100_000),
      "is read at",
      blank("read_mb_s", "Reading", "MB/s", 60, 0.1, 5000),
      ", goes over a link of",
      blank("link_mb_s", "Link", "MB/s", 30, 0.1, 5000),
      "and is written at",
      blank("write_mb_s", "Writing", "MB/s", 60, 0.1, 5000),
      ". How long?",
    ],
  },
];

export type Typed = Readonly<Record<string, string>>;

/** What the address says: which sum, and what is typed into its blanks. */
export function sumOf(query: URLSearchParams): { sum: Sum; typed: Typed } {
  const sum = SUMS.find((one) => one.kind === query.get("sum")) ?? SUMS[0];
  if (sum === undefined) throw new Error("no sums");
  return { sum, typed: Object.fromEntries(query) };
}

export function wantedOf(sum: Sum, typed: Typed): string {
  const choices = sum.wanted?.choices ?? [];
  return choices.find((one) => one.value === typed["wanted"])?.value ?? choices[0]?.value ?? "";
}

export function blanksOf(sum: Sum, typed: Typed): Blank[] {
  return sum.words(wantedOf(sum, typed)).filter((one): one is Blank => typeof one !== "string");
}

export function textOf(blank: Blank, typed: Typed): string {
  return typed[blank.name] ?? blank.first;
}

/** The number that is typed into a blank; minutes as a camera shows them, "41:30" or "1:05:00". */
export function numberIn(blank: Blank, text: string): number | null {
  if (blank.shown !== true || !text.includes(":")) return parseNumber(text);
  const parts = text.trim().split(":");
  if (parts.length > 3 || parts.some((one) => !/^\d{1,4}$/.test(one))) return null;
  const [seconds, minutes, hours = 0] = parts.map(Number).reverse();
  if ((seconds ?? 0) > 59 || (parts.length === 3 && (minutes ?? 0) > 59)) return null;
  return hours * 60 + (minutes ?? 0) + (seconds ?? 0) / 60;
}

/** What is wrong with what is typed into a blank, and what to do; null when it will do. */
export function wrongIn(blank: Blank, typed: Typed): string | null {
  const text = textOf(blank, typed).trim();
  if (blank.day === true)
    return /^\d{4}-\d{2}-\d{2}$/.test(text) && !Number.isNaN(Date.parse(text))
      ? null
      : "Like 2027-06-21.";
  const number = numberIn(blank, text);
  if (number === null && blank.shown === true) return "Like 41:30, or 1:05:00.";
  if (number === null)
    return text === "" ? `Give ${shownIn(blank.unit).unit}.` : "That is no number.";
  if (blank.whole === true && !Number.isInteger(number)) return "Give a whole number.";
  if (number < blank.min || number > blank.max) {
    const [least, most] = [blank.min, blank.max].map((one) => String(shownNumber(one, blank.unit)));
    return `From ${(least ?? "").replace("-", "\u2212")} to ${most ?? ""}.`;
  }
  if (blank.name === "to_pct" && number <= (parseNumber(typed["from_pct"] ?? "20") ?? 0))
    return "More than it has already.";
  return null;
}

/** The question as it is typed; null while a blank is wrong. */
export function questionOf(sum: Sum, typed: Typed): Question | null {
  const blanks = blanksOf(sum, typed);
  if (blanks.some((one) => wrongIn(one, typed) !== null)) return null;
  const values = blanks.map((one) => {
    const text = textOf(one, typed).trim();
    return [one.name, one.day === true ? text : numberIn(one, text)] as const;
  });
  const wanted = sum.wanted ? { wanted: wantedOf(sum, typed) } : {};
  return { kind: sum.kind, ...wanted, ...Object.fromEntries(values) } as Question;
}
