import { assignmentAt } from "./edits";
import { batteryIn, momentOf } from "./moment";
import type { Clock } from "./clock";
import { dyingWith, withoutText } from "./gaps";
import type { Camera, LaidItem, Pattern, PlanDocument, Rehearsal } from "./types";
import { minutesText } from "./units";

const HOW: Record<Pattern["kind"], string> = {
  roll: "Rolled",
  takes: "Takes",
  loop: "Loop",
  windows: "By the clock",
  interval: "Interval",
  armed: "On a trigger",
};

/** One cell of the board in words, for those who do not see it. */
export function cellSentence(
  document: PlanDocument,
  rehearsal: Rehearsal,
  clock: Clock,
  camera: Camera,
  laid: LaidItem,
): string {
  const head = `${camera.name}, ${laid.name}, ${clock.time(laid.start_ms)} to ${clock.time(laid.end_ms)}`;
  const moves = rehearsal.moves
    .filter((one) => one.camera === camera.id && one.item === laid.id)
    .map((one) => one.text);
  const hands = moves.length > 0 ? ` Hands: ${moves.join(", ")}.` : "";
  const assignment = assignmentAt(document.plan, camera.id, laid.id);
  const result = rehearsal.cameras.find((one) => one.camera === camera.id);
  if (assignment === undefined || result === undefined) return `${head}: not asked.${hands}`;
  const mode = camera.modes.find((one) => one.id === assignment.mode)?.name ?? "a missing mode";
  const how = HOW[assignment.pattern.kind];
  const battery = batteryIn(rehearsal, camera.id, laid.start_ms)?.name ?? "no battery";
  const from = Math.round((momentOf(result.course, laid.start_ms)?.charge ?? 0) * 100);
  const to = Math.round((momentOf(result.course, laid.end_ms - 1)?.charge ?? 0) * 100);
  const spans = result.filmed.filter((one) => one.item === laid.id);
  const filmed = spans.reduce((sum, one) => sum + one.end_ms - one.start_ms, 0);
  const asked =
    filmed +
    result.gaps
      .filter((one) => one.item === laid.id)
      .reduce((sum, one) => sum + one.end_ms - one.start_ms, 0);
  const losses = result.losses
    .filter((one) => one.item === laid.id)
    .map(
      (one) => `${minutesText(one.minutes)} missing: ${one.text} at ${clock.time(one.start_ms)}`,
    );
  const dead = dyingWith(rehearsal, camera.id).flatMap((gear) =>
    gear.gaps
      .filter((gap) => gap.start_ms < laid.end_ms && gap.end_ms > laid.start_ms)
      .map(
        (gap) => `${gear.name} empty at ${clock.time(gap.start_ms)}, ${withoutText({ gear, gap })}`,
      ),
  );
  const told = [...losses, ...dead].map((one) => `; ${one}`).join("");
  return (
    `${head}, ${assignment.importance}. ${how} ${mode} on ${battery}, ${String(from)} to ${String(to)} per cent. ` +
    `Filmed ${minutesText(filmed / 60_000)} of ${minutesText(asked / 60_000)}${told}.${hands}`
  );
}
