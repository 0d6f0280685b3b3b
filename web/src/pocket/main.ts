import "../app/base.css";
import { mountCard } from "./card";
import type { Card } from "./now";
import { localStore } from "./ticks";

const root = document.getElementById("card");
const told = document.getElementById("data")?.textContent;
if (root !== null && told != null) {
  const { card, made } = JSON.parse(told) as { card: Card; made: string };
  document.documentElement.dataset["theme"] = matchMedia("(prefers-color-scheme: dark)").matches
    ? "dim"
    : "light";
  const store = localStore(`tumbrel-card-${card.trip}`);
  mountCard(root, { card, made, store, now: () => new Date(), alone: true });
}
