"""Numbers of the quick sums as one writes them."""

from __future__ import annotations

import math


def number(value: float) -> str:
    """Three digits at most after the first, no needless zeros, a true minus."""
    if value == 0.0:
        return "0"
    digits = max(0, 2 - math.floor(math.log10(abs(value))))
    text = f"{round(value, digits):.{digits}f}"
    if "." in text:
        text = text.rstrip("0").rstrip(".")
    whole, _, part = text.partition(".")
    if len(whole.lstrip("-")) > 4:
        whole = f"{int(whole):,}".replace(",", "\u202f")
    return (f"{whole}.{part}" if part else whole).replace("-", "\u2212")


def minutes_text(minutes: float) -> str:
    """Minutes as "45 s", "35 min", "2 h 05" or "5 days 3 h"."""
    if minutes < 2.0:
        return f"{round(minutes * 60.0)} s"
    whole = round(minutes)
    if whole < 60:
        return f"{whole} min"
    if whole < 72 * 60:
        return f"{whole // 60} h {whole % 60:02d}"
    hours = round(whole / 60)
    return f"{hours // 24} days {hours % 24} h"


def gigabytes(count: float) -> str:
    """Bytes as GB or TB."""
    gb = count / 1e9
    return f"{gb / 1000.0:.1f} TB" if gb >= 1000.0 else f"{number(gb)} GB"
