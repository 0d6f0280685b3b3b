import { memo, useCallback, useDeferredValue, useMemo } from "react";
import type { KeptTrip } from "../../api/keptTrip";
import type { Corrections } from "../../app/useCorrections";
import type { Cell } from "../../board/Drawing";
import type { Clock } from "../../domain/clock";
import { cameraPlan } from "../../domain/edits";
import { legHours, PATTERN_NAMES, PATTERNS } from "../../domain/patterns";
import type {
  Assignment,
  Item,
  LegServed,
  Plan,
  PlanDocument,
  Rehearsal,
} from "../../domain/types";
import type { Elastic } from "../../scale/elastic";
import { type Lanes, stripLeft } from "../../scale/lanes";
import { Pick as Choice } from "../../ui/fields";
import { Asked } from "./Asked";
import { CopyHere } from "./CopyHere";
import { DraftFoot } from "./DraftFoot";
import { Swatch } from "./Swatch";
import {
  alternativesOf,
  type Chosen,
  chosenOf,
  type Hours,
  type How,
  withHow,
  withPart,
} from "./editing";
import { LegTools } from "./LegTools";
import { MovesHere } from "./MovesHere";
import { Picture } from "./Picture";
import { Serves } from "./Serves";
import { Strip } from "./Strip";
import { StretchTold } from "./StretchTold";
import { SwapHere } from "./SwapHere";
import { useDifferences } from "./useDifferences";
import { useKeptOnLeaving } from "../../ui/useKeptOnLeaving";
import type { Drafting } from "./useTrial";

export interface StripProps {
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
  kept: KeptTrip;
  lanes: Lanes;
  onClose: () => void;
}

interface Props extends Omit<StripProps, "kept"> {
  cells: readonly Cell[];
  scale: Elastic;
  drafting: Drafting;
  corrections: Corrections;
  served: LegServed | undefined;
  handMs: number;
}

/**
 * How cameras record on one or several legs and stops. A change is rehearsed and drawn over what
 * is; keeping it is one step, leaving it changes nothing.
 */
export function StretchStrip(props: Props) {
  const { document, lanes, scale, drafting, cells, onClose } = props;
  useKeptOnLeaving(drafting.keep);
  const { kit } = document;
  const { plan } = drafting.doc;
  const chosen = useMemo(() => chosenOf(kit, plan, cells), [kit, plan, cells]);
  const band = scale.bands.find((one) => cells.some((cell) => cell.item === one.id));
  const item = drafting.doc.trip.items.find((one) => one.id === cells[0]?.item);
  if (chosen === null || item === undefined || band === undefined) return null;
  return (
    <Strip
      title={titleOf(chosen, document, cells)}
      left={stripLeft(lanes)}
      top={band.y0}
      phone={lanes.phone}
      onClose={() => {
        drafting.keep();
        onClose();
      }}
      onLeave={() => {
        drafting.leave();
        onClose();
      }}
      onKeep={drafting.keep}
      foot={<DraftFoot drafting={drafting} />}
    >
      <Editor
        document={document}
        rehearsal={props.rehearsal}
        clock={props.clock}
        doc={drafting.doc}
        change={drafting.change}
        corrections={props.corrections}
        cells={cells}
        served={props.served}
        handMs={props.handMs}
        onClose={onClose}
        chosen={chosen}
        item={item}
      />
    </Strip>
  );
}

function titleOf(chosen: Chosen, document: PlanDocument, cells: readonly Cell[]): string {
  const itemName = (id: string | undefined) =>
    document.trip.items.find((one) => one.id === id)?.name ?? "";
  const [first] = cells;
  if (cells.length === 1) return `${chosen.lead.name}, ${itemName(first?.item)}`;
  if (cells.every((one) => one.item === first?.item))
    return `${itemName(first?.item)}, ${String(cells.length)} cameras`;
  const whose = chosen.camera === null ? "of several cameras" : `of ${chosen.lead.name}`;
  return `${String(cells.length)} stretches ${whose}`;
}

interface EditorProps extends Pick<
  Props,
  "document" | "rehearsal" | "clock" | "corrections" | "cells" | "served" | "handMs" | "onClose"
> {
  doc: Drafting["doc"];
  change: Drafting["change"];
  chosen: Chosen;
  item: Item;
}

/** Everything that is chosen; not drawn again when the answer to a change comes. */
const Editor = memo(function Editor({
  document,
  rehearsal,
  clock,
  doc,
  change,
  corrections,
  cells,
  served,
  handMs,
  onClose,
  chosen,
  item,
}: EditorProps) {
  const { kit } = document;
  const { plan } = doc;
  const { asked, lead, camera } = chosen;
  const alone = cells.length === 1;
  const settled = useDeferredValue(plan);
  const hours = useCallback<Hours>(
    (id) => {
      const leg = rehearsal.items.find((one) => one.id === id);
      return leg === undefined ? null : legHours(leg.start_ms, leg.end_ms, clock);
    },
    [rehearsal, clock],
  );
  const alternatives = useMemo(
    () => alternativesOf(kit, settled, chosen, hours),
    [kit, settled, chosen, hours],
  );
  const differences = useDeferredValue(useDifferences(document, rehearsal, alternatives, cells));
  const editPlan = useCallback(
    (edit: (old: Plan) => Plan) => change((old) => ({ ...old, plan: edit(old.plan) })),
    [change],
  );
  const put = useCallback(
    (part: Partial<Assignment>) => editPlan((old) => withPart(kit, old, cells, part)),
    [editPlan, kit, cells],
  );
  const pick = (how: How) => editPlan((old) => withHow(kit, old, cells, how, hours));
  const note = (how: How) =>
    how === (asked?.pattern.kind ?? "off") ? "now" : (differences.get(how) ?? "");
  const laid = rehearsal.items.filter((one) => cells.some((cell) => cell.item === one.id));
  const shared = { camera: lead, item: item.id, plan, document, editPlan };
  return (
    <>
      <p className="strip-when label">
        {clock.full(laid[0]?.start_ms ?? 0)} to {clock.time(laid.at(-1)?.end_ms ?? 0)}
      </p>
      <Choice
        label="How it records"
        value={asked?.pattern.kind ?? "off"}
        choices={[
          ...PATTERNS.map((value) => ({
            value,
            name: PATTERN_NAMES[value],
            note: note(value),
            picture: <Swatch kind={value} />,
          })),
          { value: "off", name: "off", note: note("off"), picture: <Swatch kind="off" /> },
        ]}
        onPick={pick}
      />
      {alone ? (
        <Serves document={document} leg={served} camera={lead.id} asked={asked} put={put} />
      ) : null}
      {asked ? (
        <Asked
          camera={lead}
          ofOne={camera !== null}
          asked={asked}
          put={put}
          differences={differences}
          carried={cameraPlan(plan, lead.id)}
          lastsS={item.duration_s}
        />
      ) : null}
      {alone ? (
        <StretchTold
          document={document}
          rehearsal={rehearsal}
          clock={clock}
          cell={{ camera: lead.id, item: item.id }}
        />
      ) : null}
      {asked && alone ? (
        <Picture document={document} plan={settled} camera={lead.id} item={item.id} />
      ) : null}
      {alone && (item.kind === "stop" || item.hands === "free") ? <SwapHere {...shared} /> : null}
      {alone && item.kind === "stop" ? <CopyHere {...shared} /> : null}
      {alone ? (
        <MovesHere
          document={document}
          rehearsal={rehearsal}
          clock={clock}
          cell={{ camera: lead.id, item: item.id }}
          editPlan={editPlan}
        />
      ) : null}
      {alone && item.kind === "leg" ? (
        <LegTools
          leg={item}
          trip={doc.trip}
          rehearsal={rehearsal}
          clock={clock}
          handMs={handMs}
          corrections={corrections}
          onDone={onClose}
        />
      ) : null}
    </>
  );
});
