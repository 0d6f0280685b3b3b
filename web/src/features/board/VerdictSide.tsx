import { memo, type ReactNode, useRef } from "react";
import { useNavigate } from "react-router";
import type { Cell } from "../../board/Drawing";
import type { Clock } from "../../domain/clock";
import { sameTarget, targetOfLoss } from "../../domain/cures";
import { findingPlace, lossesInOrder, nameOfCamera } from "../../domain/moment";
import type { CureTarget, Finding, PlanDocument, Rehearsal } from "../../domain/types";
import { minutesText } from "../../domain/units";
import { useRoving } from "../../ui/useRoving";
import { Cures, type Curing } from "./Cures";
import { useSettled } from "./useSettled";

interface Props {
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
  goTo: (cell: Cell, ms: number) => void;
  openCamera: (camera: string) => void;
  openPlan: () => void;
  curing: Curing;
}

const SEVERITY = { stop: "Stop", warn: "Mind", note: "Note" };
const SPOKEN_AFTER_MS = 600;

/** What is missing, and what else should be known; each leads to its place and to its cures. */
export const TroubleSide = memo(function TroubleSide(props: Props) {
  const { curing } = props;
  const list = useRef<HTMLElement>(null);
  const roving = useRoving(list, "button.side-row, button.cures-open");
  const cures = (target: CureTarget, about: string) => {
    const open = sameTarget(curing.open, target);
    return (
      <>
        <button
          type="button"
          className="plain link cures-open"
          aria-expanded={open}
          aria-label={`Cures of ${about}`}
          onClick={() => curing.onOpen(open ? null : target)}
        >
          {open ? "Hide cures" : "Cures"}
        </button>
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

type CuresFor = (target: CureTarget, about: string) => ReactNode;

/** The plain answer. */
export function VerdictSide({
  rehearsal,
  late,
  error,
}: {
  rehearsal: Rehearsal;
  late: boolean;
  error: Error | null;
}) {
  const { verdict } = rehearsal;
  const spoken = useSettled(`${verdict.headline} ${verdict.detail}`, SPOKEN_AFTER_MS);
  return (
    <aside className="verdict-side" aria-label="Verdict">
      <h1 className={verdict.covered ? "covered" : "broken"} data-testid="headline">
        {verdict.headline}
      </h1>
      <p>{verdict.detail}</p>
      <p className="sr" role="status" aria-live="polite">
        {spoken}
      </p>
      <p className="late label" aria-hidden={!late}>
        {error ? error.message : late ? "rehearsing…" : ""}
      </p>
    </aside>
  );
}

function Losses({
  document,
  rehearsal,
  clock,
  goTo,
  cures,
}: Pick<Props, "document" | "rehearsal" | "clock" | "goTo"> & { cures: CuresFor }) {
  const losses = lossesInOrder(rehearsal);
  if (losses.length === 0) return null;
  const itemName = (id: string) => document.trip.items.find((one) => one.id === id)?.name ?? id;
  return (
    <section>
      <h2>
        Not filmed <span className="sum">{minutesText(rehearsal.verdict.minutes.missing)}</span>
      </h2>
      <ul className="side-list">
        {losses.map((loss) => (
          <li key={`${loss.camera}-${loss.item}-${loss.cause}`}>
            <button
              type="button"
              className="plain side-row"
              onClick={() => goTo({ camera: loss.camera, item: loss.item }, loss.start_ms)}
            >
              <span className="side-row-head label">
                <b>{loss.minutes > 0 ? minutesText(loss.minutes) : "Under 1 min"}</b>{" "}
                {nameOfCamera(document, loss.camera)}, {loss.text}
              </span>
              <span className="side-row-more label">
                {clock.full(loss.start_ms)} · {itemName(loss.item)} · {loss.importance}
              </span>
            </button>
            {cures(
              targetOfLoss(loss),
              `${nameOfCamera(document, loss.camera)} on ${itemName(loss.item)}, ${loss.text}`,
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

function targetOf({ code, camera, item, path }: Finding): CureTarget {
  return { code, camera: camera ?? null, item: item ?? null, path };
}

function Findings({
  document,
  rehearsal,
  goTo,
  openCamera,
  openPlan,
  cures,
}: Omit<Props, "clock"> & { cures: CuresFor }) {
  const navigate = useNavigate();
  if (rehearsal.findings.length === 0) return null;
  const lead = (finding: Finding) => {
    const place = findingPlace(finding.path);
    const laid = rehearsal.items.find((one) => one.id === finding.item);
    if (place !== "board") void navigate(`../${place}?at=${encodeURIComponent(finding.path)}`);
    else if (finding.camera != null && laid)
      goTo({ camera: finding.camera, item: laid.id }, laid.start_ms);
    else if (finding.camera != null) openCamera(finding.camera);
    else openPlan();
  };
  const where = { kit: "to the kit", route: "to the route", board: "show it" };
  return (
    <section>
      <h2>To know</h2>
      <ul className="side-list">
        {rehearsal.findings.map((finding) => (
          <li key={finding.code + finding.path}>
            <button type="button" className="plain side-row" onClick={() => lead(finding)}>
              <span className="label">
                <b className={`severity ${finding.severity}`}>{SEVERITY[finding.severity]}</b>{" "}
                {finding.text} <span className="leads">{where[findingPlace(finding.path)]}</span>
              </span>
            </button>
            {finding.curable ? cures(targetOf(finding), finding.text) : null}
          </li>
        ))}
      </ul>
      {document.kit.batteries.length > 0 ? (
        <p className="caution">
          Lithium cells: no swollen, wet or crushed ones; cover spare terminals. Follow the maker’s
          and the carrier’s rules.
        </p>
      ) : null}
    </section>
  );
}
