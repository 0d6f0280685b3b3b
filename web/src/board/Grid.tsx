import {
  type KeyboardEvent,
  memo,
  type MouseEvent,
  type PointerEvent,
  useEffect,
  useRef,
} from "react";
import type { Clock } from "../domain/clock";
import { cellSentence } from "../domain/sentences";
import type { PlanDocument, Rehearsal } from "../domain/types";
import type { Band, Elastic } from "../scale/elastic";
import type { Lanes } from "../scale/lanes";
import type { Cell } from "./Drawing";
import { cellsBetween, sameCell, toggled } from "./selection";

interface GridProps {
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
  /** Its bands are those that are drawn. */
  scale: Elastic;
  /** All legs and stops, drawn or not. */
  rows: readonly Band[];
  lanes: Lanes;
  selected: Cell | null;
  /** All that are chosen, when it is more than one. */
  many: readonly Cell[];
  onSelect: (cell: Cell) => void;
  onSelectMany: (cells: readonly Cell[], focus: Cell) => void;
  onOpen: (cell: Cell) => void;
  onOpenMany: (cells: readonly Cell[]) => void;
}

const STEPS: Record<string, [number, number] | undefined> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};
const LONG_PRESS_MS = 500;

/**
 * The board as a grid of words: rows are legs and stops, columns cameras. One stop of Tab. Shift
 * reaches over several cells, Ctrl or a long press adds one; a row's head is the whole leg.
 */
export const Grid = memo(function Grid(props: GridProps) {
  const { document, scale, selected, many, onSelect, onSelectMany, onOpenMany } = props;
  const cells = useRef(new Map<string, HTMLElement>());
  const quiet = useRef(false);
  const wanted = useRef<string | null>(null);
  useEffect(() => {
    const element = wanted.current === null ? undefined : cells.current.get(wanted.current);
    if (element === undefined) return;
    wanted.current = null;
    element.focus();
  });
  const cameras = document.kit.cameras;
  const rows = props.rows.filter((band) => band.kind !== "wait");
  const drawn = scale.bands.filter((band) => band.kind !== "wait");
  const names = cameras.map((one) => one.id);
  const activeRow = Math.max(
    0,
    rows.findIndex((band) => band.id === selected?.item),
  );
  const activeColumn = Math.max(0, names.indexOf(selected?.camera ?? ""));
  const anchor = many[0] ?? selected;

  // chosen already: focusing it must not choose it alone
  const focusQuietly = (element: HTMLElement | undefined) => {
    quiet.current = true;
    element?.focus();
    quiet.current = false;
  };
  const reach = (to: Cell) =>
    onSelectMany(
      anchor === null
        ? [to]
        : cellsBetween(
            rows.map((one) => one.id),
            names,
            anchor,
            to,
          ),
      to,
    );
  const go = (row: number, column: number, reaching = false) => {
    const band = rows[Math.min(rows.length - 1, Math.max(0, row))];
    const camera = cameras[Math.min(cameras.length - 1, Math.max(0, column))];
    if (band === undefined || camera === undefined) return;
    const cell = { camera: camera.id, item: band.id };
    if (reaching) reach(cell);
    else onSelect(cell);
    const key = `${band.id}/${camera.id}`;
    if (!cells.current.has(key)) {
      wanted.current = key; // not drawn yet: focused as soon as it is
      return;
    }
    focusQuietly(cells.current.get(key));
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.altKey || event.metaKey) return;
    const step = STEPS[event.key];
    if (step) go(activeRow + step[0], activeColumn + step[1], event.shiftKey);
    else if (event.key === "Home") go(0, activeColumn, event.shiftKey);
    else if (event.key === "End") go(rows.length - 1, activeColumn, event.shiftKey);
    else if (event.key === "Escape" && many.length > 1 && selected) onSelectMany([], selected);
    else return;
    event.preventDefault();
  };

  return (
    <div
      role="grid"
      aria-label="Board: legs and stops by camera"
      aria-multiselectable="true"
      aria-rowcount={rows.length}
      aria-colcount={cameras.length + 1}
      onKeyDown={onKey}
      data-board="grid"
    >
      {drawn.map((band) => (
        <div
          role="row"
          key={band.id}
          aria-rowindex={rows.findIndex((one) => one.id === band.id) + 1}
        >
          <RowHead
            band={band}
            lanes={props.lanes}
            onOpen={() => onOpenMany(names.map((camera) => ({ camera, item: band.id })))}
          />
          {cameras.map((camera, column) => (
            <GridCell
              key={camera.id}
              {...props}
              cell={{ camera: camera.id, item: band.id }}
              band={band}
              column={column}
              active={band.id === rows[activeRow]?.id && column === activeColumn}
              keep={(element) => {
                if (element) cells.current.set(`${band.id}/${camera.id}`, element);
                else cells.current.delete(`${band.id}/${camera.id}`);
              }}
              onReach={reach}
              onFocusQuietly={focusQuietly}
              onFocused={(cell) => {
                if (!quiet.current && many.length === 0) onSelect(cell);
              }}
            />
          ))}
        </div>
      ))}
    </div>
  );
});

interface RowHeadProps {
  band: Band;
  lanes: Lanes;
  onOpen: () => void;
}

/** A leg or stop by name: all cameras on it at once. */
function RowHead({ band, lanes, onOpen }: RowHeadProps) {
  return (
    <div
      role="rowheader"
      className="row-head"
      style={{
        left: lanes.wordsX,
        top: band.y0,
        width: lanes.wordsW,
        height: Math.min(20, band.y1 - band.y0),
      }}
    >
      <button
        type="button"
        className="plain"
        tabIndex={-1}
        aria-label={`${band.name}: all cameras`}
        onClick={onOpen}
      />
    </div>
  );
}

interface CellProps extends GridProps {
  cell: Cell;
  band: Band;
  column: number;
  active: boolean;
  keep: (element: HTMLElement | null) => void;
  onReach: (cell: Cell) => void;
  onFocused: (cell: Cell) => void;
  onFocusQuietly: (element: HTMLElement) => void;
}

function GridCell(props: CellProps) {
  const { document, rehearsal, clock, lanes, cell, band, column, active, keep, onReach } = props;
  const { onFocused, onFocusQuietly } = props;
  const { selected, many, onSelectMany, onOpen, onOpenMany } = props;
  const pressed = useRef<ReturnType<typeof setTimeout> | null>(null);
  const long = useRef(false);
  const laid = rehearsal.items.find((one) => one.id === band.id);
  const camera = document.kit.cameras[column];
  const add = () =>
    onSelectMany(toggled(many.length > 0 ? many : selected ? [selected] : [], cell), cell);
  const down = (event: PointerEvent) => {
    long.current = false;
    if (event.pointerType !== "touch") return;
    pressed.current = setTimeout(() => {
      long.current = true;
      add();
    }, LONG_PRESS_MS);
  };
  const up = () => {
    if (pressed.current !== null) clearTimeout(pressed.current);
  };
  const click = (event: MouseEvent) => {
    if (long.current) return;
    if (event.shiftKey || event.ctrlKey || event.metaKey) {
      if (event.shiftKey) onReach(cell);
      else add();
      if (event.currentTarget instanceof HTMLElement) onFocusQuietly(event.currentTarget);
    } else if (many.some((one) => sameCell(one, cell))) onOpen(cell);
    else onOpenMany([cell]);
  };
  return (
    <div
      role="gridcell"
      tabIndex={active ? 0 : -1}
      ref={keep}
      data-cell={`${cell.item}/${cell.camera}`}
      aria-label={
        laid && camera ? cellSentence(document, rehearsal, clock, camera, laid) : band.name
      }
      aria-selected={
        many.length > 0 ? many.some((one) => sameCell(one, cell)) : sameCell(selected, cell)
      }
      onFocus={() => onFocused(cell)}
      onMouseDown={(event) => {
        // the cell chosen before stays the one that Shift and Ctrl start from
        if (event.shiftKey || event.ctrlKey || event.metaKey) event.preventDefault();
      }}
      onPointerDown={down}
      onPointerUp={up}
      onPointerCancel={up}
      onPointerLeave={up}
      onContextMenu={(event) => {
        if (long.current) event.preventDefault();
      }}
      onClick={click}
      onKeyDown={(event) => {
        if (event.key !== "Enter" && event.key !== " ") return;
        if (event.ctrlKey || event.metaKey) return;
        event.preventDefault();
        if (event.key === " " && event.shiftKey) add();
        else onOpen(cell);
      }}
      style={{
        position: "absolute",
        cursor: "pointer",
        left: lanes.at[column]?.x,
        top: band.y0,
        width: lanes.at[column]?.w,
        height: band.y1 - band.y0,
      }}
    />
  );
}
