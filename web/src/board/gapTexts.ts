import type { Loss } from "../domain/types";
import { minutesText } from "../domain/units";
import type { Elastic } from "../scale/elastic";
import { LINE_PX, placeLabels } from "../scale/labels";

export interface GapText {
  key: string;
  y: number;
  minutes: string;
  cause: string | null;
}

/** Words beside a lane's gaps: minutes and cause; where a leg is too short for all, their sum. */
export function gapTexts(losses: readonly Loss[], scale: Elastic, compact: boolean): GapText[] {
  const wanted = [...new Set(losses.map((loss) => loss.item))].flatMap((item) => {
    const group = losses.filter((loss) => loss.item === item);
    const band = scale.bands.find((one) => one.id === item);
    const fits =
      band !== undefined && group.length * LINE_PX <= band.y1 - scale.y(group[0]?.start_ms ?? 0);
    return (fits ? group.map((loss) => [loss]) : [group]).map((some) =>
      textOf(some, band?.y1, scale, compact),
    );
  });
  const placed = placeLabels(wanted);
  return wanted.map(({ key, minutes, cause }, place) => ({
    key,
    minutes,
    y: placed[place]?.y ?? 0,
    cause: (placed[place]?.lines ?? 1) > 1 ? cause : null,
  }));
}

function textOf(
  losses: readonly Loss[],
  bottom: number | undefined,
  scale: Elastic,
  compact: boolean,
) {
  const top = scale.y(losses[0]?.start_ms ?? 0);
  const cause = losses.length === 1 && !compact ? (losses[0]?.text ?? null) : null;
  const minutes = losses.reduce((sum, loss) => sum + loss.minutes, 0);
  const key = losses.map((loss) => `${loss.item}-${loss.cause}`).join();
  return {
    key,
    top,
    bottom: bottom ?? top,
    lines: cause === null ? 1 : 2,
    minutes: minutes > 0 ? `${minutesText(minutes)} lost` : "under 1 min lost",
    cause,
  };
}
