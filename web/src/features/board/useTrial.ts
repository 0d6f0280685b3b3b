import { replaceEqualDeep } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Pump } from "../../api/pump";
import { rehearse } from "../../api/rehearsals";
import { SCHEMA } from "../../api/schema-number";
import type { Shown } from "../../api/useRehearsal";
import { matches } from "../../app/commands";
import { useTripHere } from "../../app/TripContext";
import { useKeepKit } from "../../app/useKeepKit";
import { keptCure, withCure } from "../../domain/cures";
import { differenceText } from "../../domain/difference";
import type { TripAndPlan } from "../../domain/edits";
import { nameOfCamera } from "../../domain/moment";
import { withoutWays } from "../../domain/track";
import type { Cure, CureTarget, PlanDocument, Rehearsal } from "../../domain/types";
import { useKeptOnLeaving } from "../../ui/useKeptOnLeaving";
import type { Curing } from "./Cures";

type Edit = (doc: TripAndPlan) => TripAndPlan;

/** A change of trip and plan that is rehearsed and drawn, and kept as one step or left. */
export interface Drafting {
  /** Trip and plan as they are kept. */
  base: TripAndPlan;
  /** Trip and plan with the change. */
  doc: TripAndPlan;
  pending: boolean;
  /** What it gains and costs; null until it has been rehearsed. */
  difference: string | null;
  headline: string;
  /** The difference belongs to an earlier moment of a drag. */
  late: () => boolean;
  /** Change more. */
  change: (edit: Edit) => void;
  /** Change this instead of what was tried before. */
  put: (edit: Edit) => void;
  keep: () => void;
  leave: () => void;
}

/** A change that the board shows and nobody has kept: a cure, or edits of a draft. */
interface Trial {
  cure: Cure | null;
  edits: readonly Edit[];
  doc: TripAndPlan;
  document: PlanDocument;
}

interface Told {
  of: Trial;
  rehearsal: Rehearsal;
}

export interface Trials {
  curing: Curing;
  drafting: Drafting;
  drawn: Shown;
  ghost: Rehearsal | null;
}

/** What is tried now, and what was answered last; known at once, before the page draws it. */
class Run {
  private tried: Trial | null = null;
  private answered: Trial | null = null;

  go(next: Trial | null): void {
    this.tried = next;
  }

  answer(of: Trial): void {
    this.answered = of;
  }

  newest(): Trial | null {
    return this.tried;
  }

  isLate(): boolean {
    return this.tried !== this.answered;
  }
}

/** What is tried, rehearsed as it changes; only the newest answer counts. */
function useTryout() {
  const [trial, setTrial] = useState<Trial | null>(null);
  const [told, setTold] = useState<Told | null>(null);
  const [error, setError] = useState<string | null>(null);
  const fail = useCallback(
    (problem: unknown) => setError(problem instanceof Error ? problem.message : String(problem)),
    [],
  );
  const [run] = useState(() => new Run());
  const [pump] = useState(
    () =>
      new Pump<Trial, Rehearsal>(
        (asked) => rehearse(asked.document),
        (rehearsal, of) => {
          performance.mark("tumbrel-tried");
          run.answer(of);
          if (run.newest() === null) return;
          setError(null);
          setTrial(run.newest());
          setTold({ of, rehearsal });
        },
        (problem, isNewest) => {
          if (isNewest) fail(problem);
        },
      ),
  );
  // a drag moves sixty times a second: the page is drawn when it begins and with each answer
  const show = useCallback(
    (next: Trial | null, moving = false) => {
      const goesOn = moving && run.newest() !== null;
      run.go(next);
      if (!goesOn) {
        setTrial(next);
        setError(null);
      }
      if (next === null) setTold(null);
      else pump.push(next);
    },
    [pump, run],
  );
  return { trial, told, error, setError, run, show };
}

/** What is tried over what is kept. */
export function useTrial(shown: Shown): Trials {
  const { kept } = useTripHere();
  const keepKit = useKeepKit();
  const { edit, state } = kept;
  const base = useMemo<TripAndPlan>(
    () => ({
      trip: state?.trip ?? shown.document.trip,
      plan: state?.plan ?? shown.document.plan,
    }),
    [state?.trip, state?.plan, shown.document],
  );
  const kit = state?.kit ?? shown.document.kit;
  const { trial, told, error, setError, run, show } = useTryout();
  const [open, setOpen] = useState<CureTarget | null>(null);

  const draft = useCallback(
    (edits: readonly Edit[], moving = false) => {
      const doc = edits.reduce((before, one) => one(before), base);
      const document = { tumbrel: SCHEMA, kit, trip: withoutWays(doc.trip), plan: doc.plan };
      show({ cure: null, edits, doc, document }, moving);
    },
    [base, kit, show],
  );
  // what is kept changed under a draft (undo, another tab): the draft is of the new state
  const drafted = useRef(base);
  useEffect(() => {
    if (drafted.current === base) return;
    drafted.current = base;
    void Promise.resolve().then(() => {
      const now = run.newest();
      if (now !== null && now.cure === null) draft(now.edits);
      else if (now !== null) show(null);
    });
  }, [base, draft, run, show]);

  const keepDraft = useCallback(() => {
    const now = run.newest();
    if (now === null || now.cure !== null) return;
    show(null);
    edit((doc) => now.edits.reduce((before, one) => one(before), doc));
  }, [edit, run, show]);
  useKeptOnLeaving(keepDraft);
  const leave = useCallback(() => show(null), [show]);
  useTakenBack(run, leave);

  const { document } = shown;
  const onTry = useCallback(
    (cure: Cure | null) => {
      keepDraft();
      if (cure === null) show(null);
      else show({ cure, edits: [], doc: base, document: withCure(document, cure) });
    },
    [base, document, keepDraft, show],
  );
  const onKeep = useCallback(
    (cure: Cure) => {
      show(null);
      // a cure is of what was rehearsed: an edit made since must not be lost with it
      const changes = cure.trip != null || cure.plan != null;
      if (changes && state?.plan !== document.plan) {
        setError("The plan was changed meanwhile. Nothing was kept; the cures are sought anew.");
        return;
      }
      const cured = cure.kit;
      if (cured != null && state?.kit !== document.kit) {
        setError("The kit was changed meanwhile. Nothing was kept; the cures are sought anew.");
        return;
      }
      if (cured != null) void keepKit(() => cured);
      if (changes) edit((doc) => keptCure(doc, cure));
    },
    [document, edit, keepKit, setError, show, state],
  );

  const fresh = trial !== null && told !== null && told.of.cure === trial.cure ? told : null;
  // what is the same stays the same object, so that only ropes that change are drawn anew
  const rehearsal = useMemo(
    () => (fresh === null ? null : replaceEqualDeep(shown.rehearsal, fresh.rehearsal)),
    [shown.rehearsal, fresh],
  );
  const whole = useMemo<PlanDocument>(() => ({ ...document, trip: base.trip }), [base, document]);
  // a draft leaves the cures as they are: the side is not drawn anew for it
  const tried = rehearsal === null ? null : (trial?.cure ?? null);
  const triedHeadline = tried === null ? "" : (rehearsal?.verdict.headline ?? "");
  const curing = useMemo<Curing>(
    () => ({
      document: whole,
      tried,
      headline: triedHeadline,
      error,
      onTry,
      onKeep,
      open,
      onOpen: (target: CureTarget | null) => {
        onTry(null);
        setOpen(target);
      },
    }),
    [whole, tried, triedHeadline, error, onTry, onKeep, open],
  );
  const pending = trial !== null && trial.cure === null;
  const change = useCallback(
    (more: Edit) => draft([...(run.newest()?.edits ?? []), more]),
    [draft, run],
  );
  const put = useCallback((instead: Edit) => draft([instead], true), [draft]);
  const late = useCallback(() => run.isLate(), [run]);
  const drafting = useMemo<Drafting>(
    () => ({
      base,
      doc: pending ? trial.doc : base,
      pending,
      difference:
        pending && rehearsal !== null
          ? differenceText(shown.rehearsal, rehearsal, (one) => nameOfCamera(document, one))
          : null,
      headline: rehearsal?.verdict.headline ?? "",
      late,
      change,
      put,
      keep: keepDraft,
      leave,
    }),
    [
      pending,
      trial,
      base,
      rehearsal,
      shown.rehearsal,
      document,
      late,
      change,
      put,
      keepDraft,
      leave,
    ],
  );
  // over the same times the change is drawn upon what is; with other times it is drawn instead
  const over = rehearsal !== null && sameTimes(rehearsal, shown.rehearsal);
  const drawn = useMemo(
    () =>
      fresh === null || rehearsal === null || over
        ? shown
        : { document: fresh.of.document, rehearsal },
    [fresh, rehearsal, over, shown],
  );
  return { curing, drafting, drawn, ghost: over ? rehearsal : null };
}

/** Undo takes back what is drafted before it takes back what is kept. */
function useTakenBack(run: Run, leave: () => void): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLInputElement && event.target.type === "text";
      if (typing || !matches(event, "Ctrl+Z") || run.newest() === null) return;
      event.preventDefault();
      event.stopImmediatePropagation();
      leave();
    };
    addEventListener("keydown", onKey, true);
    return () => removeEventListener("keydown", onKey, true);
  }, [run, leave]);
}

function sameTimes(one: Rehearsal, other: Rehearsal): boolean {
  if (one.items === other.items) return true;
  return (
    one.items.length === other.items.length &&
    one.items.every((item, place) => {
      const mine = other.items[place];
      return item.id === mine?.id && item.start_ms === mine.start_ms && item.end_ms === mine.end_ms;
    })
  );
}
