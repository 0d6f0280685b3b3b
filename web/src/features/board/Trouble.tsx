import { memo, type ReactNode, useRef } from "react";
import type { Cell } from "../../board/Drawing";
import type { Clock } from "../../domain/clock";
import { sameTarget, targetOfLoss } from "../../domain/cures";
import { lossesInOrder, nameOfCamera } from "../../domain/moment";
import type { CureTarget, PlanDocument, Rehearsal } from "../../domain/types";
import { minutesText } from "../../domain/units";
import { useRoving } from "../../ui/useRoving";
import { Cures, type Curing } from "./Cures";
import { Findings } from "./Findings";
import { type BestCure, gapKey } from "./useBestCures";

export interface TroubleProps {
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
  goTo: (cell: Cell, ms: number) => void;
  openCamera: (camera: string) => void;
  openPlan: () => void;
  curing: Curing;
  best: ReadonlyMap<string, BestCure>;
}

export type CuresFor = (target: CureTarget, about: string, known?: BestCure) => ReactNode;

/** What is missing, and what else should be known; each leads to its place and to its cures. */
export const Trouble = memo(function Trouble(props: TroubleProps) {
  const { curing } = props;
  const list = useRef<HTMLElement>(null);
  const roving = useRoving(list, "button.side-row, button.cures-open");
  const cures: CuresFor = (target, about, known) => {
    const open = sameTarget(curing.open, target);
    return (
      <>
        <span className="cures-way label">
          {countOf(known)}
          <button
            type="button"
            className="plain link cures-open"
            aria-expanded={open}
            aria-label={`Cures of ${about}`}
            onClick={() => curing.onOpen(open ? null : target)}
          >
            cures
          </button>
        </span>
        {open && curing.open !== null ? <Cures {...curing} target={curing.open} /> : null}
      </>
    );
  };
  return (
    <aside
      className="trouble-side"
      aria-label="Not filmed, and to know"
      ref={list}
      onFocus={roving.onFocus}
      onKeyDown={roving.onKeyDown}
    >
      <Losses {...props} cures={cures} />
      <Findings {...props} cures={cures} />
    </aside>
  );
});

/** How many there are, once that is known. */
function countOf(known: BestCure | undefined): string {
  if (known === undefined) return "";
  return known.count === 0 ? "no " : `${String(known.count)} `;
}

function Losses({
  document,
  rehearsal,
  clock,
  goTo,
  best,
  cures,
}: TroubleProps & { cures: CuresFor }) {
  const losses = lossesInOrder(rehearsal);
  if (losses.length === 0) return null;
  const itemName = (id: string) => document.trip.items.find((one) => one.id === id)?.name ?? id;
  return (
    <section>
      <h2>
        Not filmed <span className="sum">{minutesText(rehearsal.verdict.minutes.missing)}</span>
      </h2>
      <ul className="side-list">
        {losses.map((loss) => {
          const camera = nameOfCamera(document, loss.camera);
          return (
            <li key={`${loss.camera}-${loss.item}-${loss.cause}`} className="lost-row">
              <button
                type="button"
                className="plain side-row"
                onClick={() => goTo({ camera: loss.camera, item: loss.item }, loss.start_ms)}
              >
                <span className="side-row-head label">
                  <b>{loss.minutes > 0 ? minutesText(loss.minutes) : "Under 1 min"}</b> {camera},{" "}
                  {loss.text}
                </span>
                <span className="side-row-more label">
                  {clock.full(loss.start_ms)} · {itemName(loss.item)} · {loss.importance}
                </span>
              </button>
              {cures(
                targetOfLoss(loss),
                `${camera} on ${itemName(loss.item)}, ${loss.text}`,
                best.get(gapKey(loss)),
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
