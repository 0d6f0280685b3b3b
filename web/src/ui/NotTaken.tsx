import type { ReactNode } from "react";
import type { Kit, MeasuredBeside } from "../domain/types";
import { minutesText } from "../domain/units";

interface Props {
  kit: Pick<Kit, "cameras">;
  found: readonly MeasuredBeside[];
  /** What can be done about it. */
  children: ReactNode;
}

/** What was measured and not taken, in words, beside what the kit says. */
export function NotTaken({ kit, found, children }: Props) {
  if (found.length === 0) return null;
  return (
    <p className="hint not-taken">
      Measured, and not taken: {found.map((one) => besideText(kit, one)).join("; ")}. {children}
    </p>
  );
}

/** One mode: what its runs foretell, and what the kit says. */
function besideText(kit: Props["kit"], one: MeasuredBeside): string {
  const camera = kit.cameras.find((each) => each.id === one.camera);
  const mode = camera?.modes.find((each) => each.id === one.mode);
  const kits = one.kit_minutes == null ? "no end" : minutesText(one.kit_minutes);
  return `${camera?.name ?? one.camera} ${mode?.name ?? one.mode} ${minutesText(one.minutes)}, ${one.end} (the kit says ${kits})`;
}
