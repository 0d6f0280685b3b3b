import { FILLS } from "../../board/fills";
import type { Pattern } from "../../domain/types";

interface Props {
  kind: Pattern["kind"] | "off";
}

/** One drawn example of how a camera records. */
export function Swatch({ kind }: Props) {
  return (
    <svg width="24" height="34" aria-hidden="true">
      <path d="M1 0V34" stroke="var(--ink)" strokeWidth="2" />
      {kind === "off" ? null : kind === "windows" ? (
        <path d="M2 3H22V11H2ZM2 19H18V27H2Z" fill={FILLS.windows} />
      ) : (
        <path d="M2 1H23L13 33H2Z" fill={FILLS[kind]} stroke="var(--rope)" strokeWidth="0.8" />
      )}
    </svg>
  );
}
