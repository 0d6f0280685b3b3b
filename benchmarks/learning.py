"""What bench runs foretell on simulated cameras, beside what their boxes claim, and how fast."""

from __future__ import annotations

from random import Random
from statistics import median

from benchmarks.yardstick import line, median_ms, yardstick_ms
from tests.reference.measured import leave_one_out, told_of
from tests.reference.rigs import LONGEST_MIN, Foretold, kit_of, off, taught_runs, tried
from tumbrel.core.bench import learn
from tumbrel.simulators.rig import some_truth

RIGS, EACH, SEEDS = 40, 6, (1, 2, 3)
MEDIAN, WITHIN, ENDS, HELD_LOW, HELD_HIGH = 0.06, 0.80, 0.95, 0.75, 0.88
FIT_MS = 1000.0
MEASURED, LEFT_OUT, LEFT_HELD_LOW, LEFT_HELD_HIGH = 4, 0.10, 0.70, 0.90


def main() -> bool:
    """Print how good and how fast the fit is; True when all is met."""
    found = [one for seed in SEEDS for one in tried(RIGS, EACH, seed)]
    print(f"{len(SEEDS) * RIGS} simulated cameras, six runs each, {len(found)} unseen conditions")
    met = _judged("fitted", found, [off(one, one.likely_min) for one in found])
    _judged("box figures alone", found, [off(one, one.box_min) for one in found])
    right = sum(one.end_right for one in found) / len(found)
    ended = [one for one in found if one.true_min < LONGEST_MIN - 1.0]
    held = sum(one.low_min <= one.true_min <= one.high_min for one in ended) / len(ended)
    fine = right >= ENDS and HELD_LOW <= held <= HELD_HIGH
    print(
        f"  end foretold right {right:.1%} (target {ENDS:.0%}), range of 80 % holds the truth in "
        f"{held:.1%} (target {HELD_LOW:.0%} to {HELD_HIGH:.0%}): {'met' if fine else 'MISSED'}"
    )
    worst = max(found, key=lambda one: off(one, one.likely_min))
    print(
        f"  worst: {worst.likely_min:.0f} min foretold ({worst.low_min:.0f} to "
        f"{worst.high_min:.0f}), true {worst.true_min:.0f}"
    )
    return _left_out() and _fast() and met and fine


def _left_out() -> bool:
    """Runs of measured cameras with modules, charging, pauses, fans and cold, each left out."""
    found = [one for seed in SEEDS for one in leave_one_out(MEASURED, seed)]
    error, held = told_of(found)
    fine = error < LEFT_OUT and LEFT_HELD_LOW <= held <= LEFT_HELD_HIGH
    print(
        f"{len(SEEDS) * MEASURED} measured cameras, {len(found)} runs left out: median error "
        f"{error:.1%} (target {LEFT_OUT:.0%}), range of 80 % holds {held:.1%} (target "
        f"{LEFT_HELD_LOW:.0%} to {LEFT_HELD_HIGH:.0%}): {'met' if fine else 'MISSED'}"
    )
    return fine


def _judged(what: str, found: list[Foretold], errors: list[float]) -> bool:
    within = sum(error < 0.15 for error in errors) / len(found)
    twice = sum(error > 1.0 for error in errors) / len(found)
    met = median(errors) < MEDIAN and within >= WITHIN
    print(
        f"  {what}: median error {median(errors):.1%}, within 15 % in {within:.1%}, "
        f"off by more than twice in {twice:.1%}"
    )
    return met


def _fast() -> bool:
    draw = Random(1)
    truth = some_truth(draw)
    camera, family = kit_of(truth, draw)
    runs = [
        run.model_copy(update={"id": f"{run.id}-{turn}"})
        for turn in range(7)
        for run in taught_runs(truth, draw)
    ][:40]
    now = yardstick_ms()
    took = median_ms(lambda: learn(camera, family, runs), 3)
    return line("a fit of forty runs", took, "ms", FIT_MS, now)


if __name__ == "__main__":
    main()
