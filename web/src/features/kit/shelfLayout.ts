import type { Camera, Cord, Kit, Mode, Shelf } from "../../domain/types";

export interface Hook {
  key: string;
  camera: Camera;
  mode: Mode;
  cord: Cord;
  x: number;
}

export interface Plank {
  camera: Camera;
  x0: number;
  x1: number;
}

export interface ShelfLayout {
  hooks: Hook[];
  planks: Plank[];
  width: number;
  height: number;
  maxMin: number;
  pxPerMin: number;
  y: (minutes: number) => number;
}

export const TOP = 74;
const LEFT = 56;
const BETWEEN = 26;
const SPACING = { least: 58, most: 74 };
const LEVEL_WORDS_PX = 128;
const HANG_PX = 216;
const LONGEST_SHOWN_MIN = 480;
const LEAST_SHOWN_MIN = 60;

/** Where planks and cords stand; the longest cord (up to eight hours) fills the height. */
export function shelfLayout(shelf: Shelf, kit: Kit, width: number): ShelfLayout {
  const count = kit.cameras.reduce((sum, camera) => sum + camera.modes.length, 0);
  const free = width - LEFT - BETWEEN * kit.cameras.length - (shelf.longest ? LEVEL_WORDS_PX : 0);
  const spacing = Math.min(SPACING.most, Math.max(SPACING.least, free / Math.max(1, count)));
  const hooks: Hook[] = [];
  const planks: Plank[] = [];
  let x = LEFT;
  for (const camera of kit.cameras) {
    const x0 = x;
    for (const mode of camera.modes) {
      const cord = shelf.cords.find((one) => one.camera === camera.id && one.mode === mode.id);
      if (cord)
        hooks.push({ key: `${camera.id}/${mode.id}`, camera, mode, cord, x: x + spacing / 2 });
      x += spacing;
    }
    const x1 = Math.max(x, x0 + 90);
    planks.push({ camera, x0, x1 });
    x = x1 + BETWEEN;
  }
  const shown = hooks.flatMap(({ cord }) => [
    cord.minutes ?? LONGEST_SHOWN_MIN,
    cord.high_minutes ?? 0,
  ]);
  const longest = Math.max(LEAST_SHOWN_MIN, shelf.longest?.minutes ?? 0, ...shown);
  const maxMin = Math.min(LONGEST_SHOWN_MIN, longest * 1.02);
  const pxPerMin = HANG_PX / maxMin;
  return {
    hooks,
    planks,
    width: x + (shelf.longest ? LEVEL_WORDS_PX : 0),
    height: TOP + HANG_PX + 46,
    maxMin,
    pxPerMin,
    y: (minutes) => TOP + minutes * pxPerMin,
  };
}
