import { type KeyboardEvent, memo, useRef } from "react";
import type { Clock } from "../domain/clock";
import { cellSentence } from "../domain/sentences";
import type { PlanDocument, Rehearsal } from "../domain/types";
import type { Elastic } from "../scale/elastic";
import type { Lanes } from "../scale/lanes";
import type { Cell } from "./Drawing";

interface GridProps {
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
  scale: Elastic;
  lanes: Lanes;
  selected: Cell | null;
  onSelect: (cell: Cell) => void;
  onOpen: (cell: Cell) => void;
}

/** The board as a grid of words: rows are legs and stops, columns cameras. One stop of Tab. */
export const Grid = memo(function Grid({
  document,
  rehearsal,
  clock,
  scale,
  lanes,
  selected,
  onSelect,
  onOpen,
}: GridProps) {
  const cells = useRef(new Map<string, HTMLElement>());
  const cameras = document.kit.cameras;
  const rows = scale.bands.filter((band) => band.kind !== "wait");
  const activeRow = Math.max(
    0,
    rows.findIndex((band) => band.id === selected?.item),
  );
  const activeColumn = Math.max(
    0,
    cameras.findIndex((camera) => camera.id === selected?.camera),
  );

  const go = (row: number, column: number) => {
    const band = rows[Math.min(rows.length - 1, Math.max(0, row))];
    const camera = cameras[Math.min(cameras.length - 1, Math.max(0, column))];
    if (band === undefined || camera === undefined) return;
    onSelect({ camera: camera.id, item: band.id });
    cells.current.get(`${band.id}/${camera.id}`)?.focus();
  };
  const onKey = (event: KeyboardEvent) => {
    const steps: Record<string, [number, number]> = {
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
    };
    const step = steps[event.key];
    if (step) go(activeRow + step[0], activeColumn + step[1]);
    else if (event.key === "Home") go(0, activeColumn);
    else if (event.key === "End") go(rows.length - 1, activeColumn);
    else return;
    event.preventDefault();
  };

  return (
    <div
      role="grid"
      aria-label="Board: legs and stops by camera"
      aria-rowcount={rows.length}
      aria-colcount={cameras.length}
      onKeyDown={onKey}
      data-board="grid"
    >
      {rows.map((band, row) => {
        const laid = rehearsal.items.find((one) => one.id === band.id);
        return (
          <div role="row" key={band.id} aria-rowindex={row + 1}>
            {cameras.map((camera, column) => {
              const active = row === activeRow && column === activeColumn;
              return (
                <div
                  key={camera.id}
                  role="gridcell"
                  tabIndex={active ? 0 : -1}
                  ref={(element) => {
                    if (element) cells.current.set(`${band.id}/${camera.id}`, element);
                    else cells.current.delete(`${band.id}/${camera.id}`);
                  }}
                  data-cell={`${band.id}/${camera.id}`}
                  aria-label={
                    laid ? cellSentence(document, rehearsal, clock, camera, laid) : band.name
                  }
                  aria-selected={selected?.item === band.id && selected.camera === camera.id}
                  onFocus={() => onSelect({ camera: camera.id, item: band.id })}
                  onClick={() => onOpen({ camera: camera.id, item: band.id })}
                  onKeyDown={(event) => {
                    if (event.key !== "Enter" && event.key !== " ") return;
                    event.preventDefault();
                    onOpen({ camera: camera.id, item: band.id });
                  }}
                  style={{
                    position: "absolute",
                    cursor: "pointer",
                    left: lanes.firstX + column * lanes.lane,
                    top: band.y0,
                    width: lanes.lane,
                    height: band.y1 - band.y0,
                  }}
                />
              );
            })}
          </div>
        );
      })}
    </div>
  );
});
