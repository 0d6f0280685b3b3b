"""What runs on a module, of charging, with pauses and in the cold teach (model/learning#special).

Each gives standardised residuals for one or many sets of figures at once.
"""

from __future__ import annotations

import math
from dataclasses import replace
from typing import TYPE_CHECKING

from ..cold import cold_curve, points_of
from ..energy import nominal_wh
from .figures import COLD_BELOW_C
from .model import bench_of, cell_after, expected

if TYPE_CHECKING:
    from ..parameters import Defaults
    from .figures import Figures
    from .model import Array, BodyCourse
    from .runs import BenchRun, ShareRead

READING = 0.01  # a per cent, as it is shown
STORE_ERROR = 0.03
CHARGE_ERROR = 0.03
DEATH_READING = 0.02
RISE_ERROR = 0.08  # of a repeated run


def store_misfits(course: BodyCourse, logs: Array, figures: Figures, run: BenchRun) -> list[Array]:
    """Readings of a module's per cent: by then its camera has drawn so much of it."""
    import numpy as np  # noqa: PLC0415 - slow to import

    if run.store_wh is None:
        return []
    gives = np.exp(logs[..., figures.place["store_gives", run.store_kind]]) * run.store_wh
    found: list[Array] = []
    for reading in run.store_read:
        spent = 1.0 - reading.share
        if spent <= READING:
            continue
        foretold = course.draw_w * reading.at_min / 60.0 / gives
        found.append(np.log(spent / foretold) / math.hypot(STORE_ERROR, READING / spent))
    return found


def charging_min(
    logs: Array, figures: Figures, run: BenchRun, to_share: float, defaults: Defaults
) -> Array:
    """Minutes that a battery takes from the start of a charging run to a share [0..1].

    Constant, then the taper; half the rate in a cool cell; no more than its port gives.
    """
    import numpy as np  # noqa: PLC0415 - slow to import

    rate = np.exp(logs[..., figures.place["rate_per_h", ""]])
    label_wh = nominal_wh(figures.family.mah, figures.family.nominal_v)
    wh = label_wh * np.exp(logs[..., figures.place["energy", ""]])
    if run.ambient_c <= defaults.cool_below_c.value:
        rate = rate * defaults.cool_share.value
    most: Array = rate * wh
    if run.port_w is not None:
        most = np.minimum(most, run.port_w * defaults.charge_efficiency.value)
    left = np.exp(logs[..., figures.place["taper", ""]])
    kink = 1.0 - left * most / (rate * wh)
    start, end = run.charge_start, min(to_share, defaults.full.value)
    flat = np.maximum(0.0, np.minimum(kink, end) - start) * wh / most
    above = np.maximum(kink, start)
    lag = left / rate
    taper = np.where(end > above, lag * np.log((1.0 - np.minimum(above, end)) / (1.0 - end)), 0.0)
    minutes: Array = (flat + taper) * 60.0
    return minutes


def charging_misfits(
    logs: Array, figures: Figures, run: BenchRun, defaults: Defaults
) -> list[Array]:
    """A charging run: its end, and what was read on the way, teach rate and taper."""
    import numpy as np  # noqa: PLC0415 - slow to import

    seen: list[tuple[float, float]] = [(one.at_min, one.share) for one in run.charge_read]
    seen.append((run.minutes, defaults.full.value if run.end == "full" else run.charge_end or 1.0))
    found: list[Array] = []
    for at_min, share in seen:
        if share <= run.charge_start + READING:
            continue
        foretold = charging_min(logs, figures, run, share, defaults)
        steep = READING / max(READING, 1.0 - share) if share > defaults.kink.value else 0.0
        error = math.hypot(CHARGE_ERROR, 0.25 * steep, READING / (share - run.charge_start))
        found.append(np.log(at_min / foretold) / error)
    return found


def pause_misfits(logs: Array, figures: Figures, run: BenchRun, defaults: Defaults) -> list[Array]:
    """Where charging pauses for warmth, and where it goes on: two levels of the body."""
    import numpy as np  # noqa: PLC0415 - slow to import

    if run.paused_from_min is None:
        return []
    bench = bench_of(run)
    busy = expected(logs, figures, replace(bench, charging_share=1.0), defaults)
    idle = expected(logs, figures, replace(bench, charging_share=0.0), defaults)

    def above(kind: str) -> Array:
        level = np.exp(logs[..., figures.place[kind, ""]])  # type: ignore[index]
        return np.maximum(level - run.ambient_c, 0.5)

    paused_k = busy.risen_k(run.paused_from_min)
    found = [np.log(paused_k / above("pause_c")) / RISE_ERROR]
    if run.resumed_min is not None:
        decay = np.exp(-(run.resumed_min - run.paused_from_min) / idle.lag_min)
        then_k = idle.rise_k + (paused_k - idle.rise_k) * decay
        found.append(np.log(np.maximum(then_k, 0.1) / above("resume_c")) / RISE_ERROR)
    return found


def cold_misfits(
    course: BodyCourse, logs: Array, figures: Figures, run: BenchRun, defaults: Defaults
) -> list[Array]:
    """A run that died in the cold, its per cent read: what the cold holds, apart from the draw."""
    import numpy as np  # noqa: PLC0415 - slow to import

    assert run.charge_end is not None
    bench = bench_of(run)
    curve = cold_curve(points_of(figures.family, defaults))
    cell_c = cell_after(run.minutes, course, bench, defaults)
    hidden = np.interp(cell_c, curve.cells_c, curve.unreachable)
    held = np.minimum(1.0, hidden * np.exp(logs[..., figures.place["cold_hold", ""]]))
    spent = run.charge_start - run.charge_end
    foretold = course.full_min * spent + course.store_min
    error = math.hypot(0.02, DEATH_READING / max(spent, DEATH_READING))
    return [
        (run.charge_end - held) / math.hypot(DEATH_READING, 0.1 * run.charge_end),
        np.log(run.minutes / foretold) / error,
    ]


def died_cold(run: BenchRun) -> bool:
    """Whether it gave out in the cold with a charge that was read."""
    cold = run.ambient_c < COLD_BELOW_C
    return run.end == "empty" and cold and run.charge_end is not None and run.charge_end > READING


def readings_text(readings: tuple[ShareRead, ...]) -> str:
    """Readings as a table holds them: "20:0.8 40:0.55"."""
    return " ".join(f"{one.at_min:g}:{one.share:g}" for one in readings)
