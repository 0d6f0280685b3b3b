import * as limits from "../../domain/limits";
import { Button } from "@mui/material";
import { freshCard, withCopiedCard, withoutUnit, withUnit } from "../../domain/kitEdits";
import type { Card, Kit } from "../../domain/types";
import { ChoiceIn, NameIn, NumberIn } from "../../ui/fields";
import { CostIn } from "./CarriedIn";

interface Props {
  kit: Kit;
  editKit: (change: (old: Kit) => Kit) => void;
}

const CLASSES = ["C10", "U1", "U3", "V6", "V10", "V30", "V60", "V90"] as const;

/** Memory cards as labelled units. */
export function Cards({ kit, editKit }: Props) {
  const put = (next: Card) => editKit((old) => ({ ...old, cards: withUnit(old.cards, next) }));
  return (
    <section aria-label="Cards">
      <h2>Cards</h2>
      <ul className="unit-rows">
        {kit.cards.map((card, place) => (
          <li key={card.id} className="row">
            <NameIn
              label="Label"
              path={`kit.cards[${String(place)}]`}
              value={card.name}
              onCommit={(name) => put({ ...card, name })}
              width={84}
            />
            <NumberIn
              label="Size"
              unit="GB"
              value={card.gb}
              {...limits.Card.gb}
              whole
              onCommit={(gb) => put({ ...card, gb })}
              width={92}
            />
            <ChoiceIn
              label="Class"
              value={card.speed_class}
              choices={CLASSES.map((value) => ({ value, name: value }))}
              onCommit={(speed_class) => put({ ...card, speed_class })}
              width={86}
            />
            <NumberIn
              label="Used"
              unit="GB"
              value={Math.round(card.used_bytes / 1e8) / 10}
              min={0}
              max={card.gb}
              onCommit={(gb) => put({ ...card, used_bytes: Math.round(gb * 1e9) })}
              width={88}
            />
            <CostIn cost={card.cost} onCost={(cost) => put({ ...card, cost })} />
            <button
              type="button"
              className="plain link"
              disabled={kit.cards.length >= 60}
              onClick={() => editKit((old) => withCopiedCard(old, card))}
              aria-label={`Copy card ${card.name}`}
            >
              Copy
            </button>
            <button
              type="button"
              className="plain link"
              onClick={() => editKit((old) => ({ ...old, cards: withoutUnit(old.cards, card.id) }))}
              aria-label={`Delete card ${card.name}`}
            >
              Delete
            </button>
          </li>
        ))}
      </ul>
      <Button
        disabled={kit.cards.length >= 60}
        onClick={() => editKit((old) => ({ ...old, cards: [...old.cards, freshCard(old)] }))}
      >
        Add a card
      </Button>
    </section>
  );
}
