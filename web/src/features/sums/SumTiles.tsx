import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { type SumTold, tellSum } from "../../api/sums";
import { questionOf, type Sum, type SumKind, SUMS } from "../../domain/sums";
import { areaPath, linePath } from "../../scale/rope";

const NOTHING_TYPED = {};

/** The ten questions, each as a small answer that is drawn, with its own figure. */
export function SumTiles({ kind }: { kind: SumKind }) {
  return (
    <nav aria-label="Questions" className="sum-tiles">
      {SUMS.map((one) => (
        <Tile key={one.kind} sum={one} here={one.kind === kind} />
      ))}
    </nav>
  );
}

function Tile({ sum, here }: { sum: Sum; here: boolean }) {
  const question = questionOf(sum, NOTHING_TYPED);
  const told = useQuery({
    queryKey: ["sum", sum.kind],
    queryFn: () =>
      question === null ? Promise.reject(new Error("no question")) : tellSum(question),
    staleTime: Infinity,
  }).data;
  return (
    <Link
      to={`?sum=${sum.kind}`}
      replace
      className="sum-tile"
      aria-current={here ? "page" : undefined}
    >
      <SmallRope rope={told?.rope ?? null} />
      <span>
        <b className="label">{sum.title}</b>
        <small className="label" aria-hidden="true">
          {firstSentence(told?.answer ?? "")}
        </small>
      </span>
    </Link>
  );
}

const WIDE = 26;
const HIGH = 54;
const EDGE = 1;

function SmallRope({ rope }: { rope: SumTold["rope"] | null }) {
  const last = rope?.minutes.at(-1) ?? 0;
  const points = (rope?.minutes ?? []).map((minute, place) => ({
    x: EDGE + (rope?.level[place] ?? 0) * WIDE,
    y: EDGE + (last > 0 ? minute / last : 0) * HIGH,
  }));
  return (
    <svg width={WIDE + 2 * EDGE} height={HIGH + 2 * EDGE} aria-hidden="true">
      <rect x={EDGE} y={EDGE} width={WIDE} height={HIGH} fill="var(--rope-ground)" opacity={0.5} />
      <path
        d={areaPath(points, EDGE)}
        fill={rope?.kind === "room" ? "var(--card)" : "var(--rope)"}
      />
      <path d={linePath(points)} fill="none" stroke="var(--ink)" strokeWidth={1} />
    </svg>
  );
}

/** What a small answer has room for: "It lasts 34 min (18 min to 1 h 37), then it is too hot." */
function firstSentence(text: string): string {
  return /^.*?\.(?= |$)/.exec(text)?.[0] ?? text;
}
