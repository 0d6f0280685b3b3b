import {
  type FocusEvent,
  type KeyboardEvent,
  memo,
  type MouseEvent,
  type RefObject,
  useEffect,
  useRef,
} from "react";
import { useLocation } from "react-router";
import { GAP_WORDS_PX, type GapLine } from "../../board/gapLines";
import type { Clock } from "../../domain/clock";
import { cureFigures, sameTarget, targetOfLoss } from "../../domain/cures";
import { type Gap, gapName } from "../../domain/gaps";
import { nameOfCamera } from "../../domain/moment";
import type { Loss, PlanDocument } from "../../domain/types";
import { minutesText } from "../../domain/units";
import type { Lanes } from "../../scale/lanes";
import { useRoving } from "../../ui/useRoving";
import type { Curing } from "./Cures";
import { DeadTold, type ToldProps } from "./DeadTold";
import { type BestCure, gapKey } from "./useBestCures";

interface Props {
  document: PlanDocument;
  clock: Clock;
  lines: readonly GapLine[];
  lanes: Lanes;
  best: ReadonlyMap<string, BestCure>;
  curing: Curing;
  goTo: (gap: Gap) => void;
}

/** What goes wrong, told at its minute in its own leg, and under it the best cure: Enter keeps it. */
export const GapsTold = memo(function GapsTold(props: Props) {
  const { document, clock, lines, lanes, best, curing, goTo } = props;
  const group = useRef<HTMLDivElement>(null);
  const roving = useRoving(group, "button.gap-told");
  const { telling } = lanes;
  const first = lines.map((one) => one.gap).find((one) => one.kind === "film");
  useLed(group, first?.loss, best, curing.onTry);
  if (telling === null) return null;
  return (
    <div
      ref={group}
      role="group"
      aria-label="Gaps and their best cures"
      className="gaps-told label"
      onFocus={roving.onFocus}
      onKeyDown={roving.onKeyDown}
    >
      {lines.map(({ gap, y }) => {
        const at = { left: telling.x - 4, top: y, width: telling.w - 12, height: GAP_WORDS_PX };
        const told = { clock, document, goTo: () => goTo(gap), style: at };
        return gap.kind === "film" ? (
          <GapTold
            key={gapName(gap)}
            {...told}
            loss={gap.loss}
            curing={curing}
            known={best.get(gapKey(gap.loss))}
          />
        ) : (
          <DeadTold key={gapName(gap)} {...told} dead={gap.dead} />
        );
      })}
    </div>
  );
});

/** The first time the demo is opened: the first gap is focused, its cure ghosted, Enter keeps it. */
function useLed(
  group: RefObject<HTMLDivElement | null>,
  first: Loss | undefined,
  best: ReadonlyMap<string, BestCure>,
  onTry: Curing["onTry"],
): void {
  const state: unknown = useLocation().state;
  const led = typeof state === "object" && state !== null && "led" in state && state.led === true;
  const done = useRef(false);
  const cure = (first === undefined ? null : best.get(gapKey(first))?.cure) ?? null;
  useEffect(() => {
    if (!led || cure === null || done.current) return;
    // somebody is at work already, and not only arrived at the place
    if (document.activeElement?.matches("body, main") === false) return;
    done.current = true;
    group.current?.querySelector<HTMLElement>("button.gap-told:not(.dead)")?.focus();
    onTry(cure);
  }, [group, led, cure, onTry]);
}

const STAYS = new Set(["Enter", " ", "Shift", "Control", "Alt", "Meta"]);

interface GapProps extends ToldProps {
  loss: Loss;
  known: BestCure | undefined;
  curing: Curing;
}

/** One gap in words, with its best cure under it. */
export function GapTold({ document, clock, curing, goTo, loss, known, style }: GapProps) {
  const cure = known?.cure ?? null;
  const tried = cure !== null && curing.tried === cure;
  const lost = loss.minutes > 0 ? `${minutesText(loss.minutes)} lost` : "under 1 min lost";
  const open = () => {
    const target = targetOfLoss(loss);
    if (!sameTarget(curing.open, target)) curing.onOpen(target);
  };
  const onClick = (event: MouseEvent) => {
    if (cure === null) {
      goTo();
      open();
    } else if (event.detail === 0 || tried) curing.onKeep(cure);
    else curing.onTry(cure);
  };
  const onFocus = (event: FocusEvent) => {
    if (cure !== null && event.currentTarget.matches(":focus-visible")) curing.onTry(cure);
  };
  // what is tried stays where a pointer goes elsewhere, to "Keep it" say; keys that go on leave it
  const onKeyDown = (event: KeyboardEvent) => {
    if (!tried || STAYS.has(event.key) || event.ctrlKey || event.metaKey) return;
    if (event.key === "Escape") event.stopPropagation();
    curing.onTry(null);
  };
  const what = `${nameOfCamera(document, loss.camera)} ${loss.text}`;
  return (
    <button
      type="button"
      className={tried ? "plain gap-told tried" : "plain gap-told"}
      style={style}
      title={`${what}, ${lost}`}
      {...{ onClick, onFocus, onKeyDown }}
    >
      <span className="gap-what">
        {clock.time(loss.start_ms)} {what}, {lost}
      </span>
      <span className="gap-cure">{cureWords(known, tried)}</span>
    </button>
  );
}

function cureWords(known: BestCure | undefined, tried: boolean): string {
  if (known === undefined) return "cures…";
  if (known.cure === null) return "nothing you carry cures it: see why";
  const [most] = cureFigures(known.cure).split(" · "); // the rest stands where it is tried
  const words = [most, known.cure.text.replace(/\.$/, "")].filter(Boolean).join(": ");
  return tried ? `Press Enter to keep this cure: ${words}` : words;
}
