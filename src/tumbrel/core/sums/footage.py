"""Sums of bytes and frames."""

from __future__ import annotations

import math

from ..document import DrawInWatts, Mode
from ..memory import GB, byte_rate, ms_to_full
from ..parameters import Defaults
from ..patterns import shortest_loop_s
from ..wording.sums import gigabytes, minutes_text, number
from ..wording.units import counted
from .answer import Rope, SumTold
from .questions import LoopFor, OnCard, Shown, TimeLapse, Transfer

CARDS_GB = (16, 32, 64, 128, 256, 512, 1024, 2048, 4096, 8192)


def _mode(mbps: float) -> Mode:
    """A mode of a bitrate, with the usual sound."""
    draw = DrawInWatts(watts=1.0)
    return Mode(
        id="m", name="m", width_px=1920, height_px=1080, fps=30.0, video_mbps=mbps, draw=draw
    )


def on_card(question: OnCard, defaults: Defaults) -> SumTold:
    """Usable bytes over bytes a second, either way round (model/memory#rate, model/memory#room)."""
    mode = _mode(question.mbps)
    rate = byte_rate(mode, defaults)
    share = defaults.usable_share.value
    rate_line = (
        f"({number(question.mbps)} + {number(mode.audio_mbps)}) Mbit/s / 8 × "
        f"{number(1.0 + defaults.container_overhead.value)} = {number(rate / 1e6)} MB/s"
    )
    assumed = (
        f"{number(defaults.container_overhead.value * 100)} % for the file's container; "
        f"{number(share * 100)} % of a card's label can be used",
    )
    if question.wanted == "hours":
        usable = question.gb * GB * share
        minutes = (ms_to_full(rate, round(usable)) or 0) / 60_000
        return SumTold(
            answer=f"A card of {number(question.gb)} GB holds {minutes_text(minutes)}.",
            value=minutes,
            unit="min",
            lines=(
                rate_line,
                f"{number(question.gb)} GB × {number(share)} = {number(usable / GB)} GB",
                f"{number(usable / GB)} GB / {number(rate / 1e6)} MB/s = {minutes_text(minutes)}",
            ),
            assumed=assumed,
            rope=_room_rope(minutes, f"{number(usable / GB)} GB free", "full"),
        )
    wanted = rate * question.hours * 3600.0
    label_gb = wanted / share / GB
    fits = next((one for one in CARDS_GB if one >= label_gb), None)
    if fits is None:
        answer = f"{gigabytes(wanted)}: more than any one card; take several."
    else:
        answer = f"A card of {fits} GB: {gigabytes(wanted)} are written."
    return SumTold(
        answer=answer,
        value=label_gb,
        unit="GB",
        lines=(
            rate_line,
            f"{number(rate / 1e6)} MB/s × {number(question.hours)} h = {number(wanted / GB)} GB",
            f"{number(wanted / GB)} GB / {number(share)} = {number(label_gb)} GB on the label",
        ),
        assumed=assumed,
        rope=Rope(
            kind="room",
            minutes=(0.0, question.hours * 60.0),
            level=(1.0, round(max(0.0, 1.0 - label_gb / (fits or label_gb)), 3)),
            top=f"{fits or round(label_gb)} GB",
            bottom=f"after {minutes_text(question.hours * 60.0)}",
        ),
    )


def shown(question: Shown, defaults: Defaults) -> SumTold:
    """Bytes left over bytes a second are the minutes that a camera shows (model/memory#rate)."""
    seconds = question.shown_min * 60.0
    overhead = 1.0 + defaults.container_overhead.value
    sound = _mode(1.0).audio_mbps
    told = minutes_text(question.shown_min)
    if question.wanted == "room":
        rate = byte_rate(_mode(question.mbps), defaults)
        room = rate * seconds
        return SumTold(
            answer=f"{gigabytes(room)} of room are left.",
            value=room / GB,
            unit="GB",
            lines=(
                f"({number(question.mbps)} + {number(sound)}) Mbit/s / 8 × {number(overhead)} = "
                f"{number(rate / 1e6)} MB/s",
                f"{told} × {number(rate / 1e6)} MB/s = {gigabytes(room)}",
            ),
            assumed=("the camera reckons with its mean bitrate",),
            rope=_room_rope(question.shown_min, gigabytes(room), "full"),
        )
    rate_s = question.gb * GB / seconds
    mbps = rate_s * 8.0 / 1e6 / overhead - sound
    if mbps <= 0.0:
        answer = "That is less than the sound alone: look at the minutes again."
    else:
        answer = f"It writes about {number(mbps)} Mbit/s of video."
    return SumTold(
        answer=answer,
        value=max(0.0, mbps),
        unit="Mbit/s",
        lines=(
            f"{number(question.gb)} GB / {told} = {number(rate_s / 1e6)} MB/s",
            f"{number(rate_s / 1e6)} MB/s × 8 / {number(overhead)} − {number(sound)} = "
            f"{number(mbps)} Mbit/s",
        ),
        assumed=("the camera reckons with its mean bitrate",),
        rope=_room_rope(question.shown_min, f"{number(question.gb)} GB free", "full"),
    )


def _room_rope(minutes: float, top: str, bottom: str) -> Rope:
    return Rope(kind="room", minutes=(0.0, minutes), level=(1.0, 0.0), top=top, bottom=bottom)


def loop_for(question: LoopFor, defaults: Defaults) -> SumTold:
    """Length less one segment holds the event and the reaction (model/patterns#asked)."""
    wait_s = question.event_s + question.reaction_s
    length_s = shortest_loop_s([(wait_s, 1)], question.segments) or 0
    segment_s = math.ceil(length_s / question.segments)
    rate = byte_rate(_mode(question.mbps), defaults)
    room = rate * (length_s + segment_s)
    n = question.segments
    return SumTold(
        answer=f"A loop of {number(length_s)} s{_in_words(length_s)} keeps it whole.",
        value=float(length_s),
        unit="s",
        lines=(
            f"{number(question.event_s)} s of event + {number(question.reaction_s)} s until you "
            f"press = {number(wait_s)} s",
            f"one of {n} segments may be gone: {number(wait_s)} × {n} / {n - 1} = {length_s} s",
            f"room: {length_s + segment_s} s × {number(rate / 1e6)} MB/s = {gigabytes(room)}",
        ),
        assumed=("the loop has run that long already when it happens",),
        rope=Rope(
            kind="room",
            minutes=(0.0, segment_s / 60.0, length_s / 60.0),
            level=(0.0, 1.0, 1.0),
            top="overwritten next",
            bottom="the press",
        ),
    )


def _in_words(seconds: float) -> str:
    """Seconds in minutes too, to the second: " (3 min 45 s)"."""
    minutes, rest = divmod(round(seconds), 60)
    if not minutes:
        return ""
    return f" ({minutes} min {rest:02d} s)" if rest else f" ({minutes} min)"


def time_lapse(question: TimeLapse) -> SumTold:
    """Frames are event over interval; playback is frames over the film's rate.

    Source: model/patterns#asked.
    """
    event_s = question.event_min * 60.0
    fps = number(question.fps)
    if question.wanted == "playback":
        frames = event_s / question.every_s
        value, unit = frames / question.fps, "s"
        answer = f"{number(value)} s of film, {counted(round(frames), 'frame')}."
        lines = (
            f"{minutes_text(question.event_min)} / {number(question.every_s)} s = "
            f"{counted(round(frames), 'frame')}",
            f"{round(frames)} / {fps} a second = {number(value)} s",
        )
    elif question.wanted == "interval":
        frames = question.playback_s * question.fps
        value, unit = event_s / frames, "s"
        answer = f"A frame every {number(value)} s, {counted(round(frames), 'frame')}."
        lines = (
            f"{number(question.playback_s)} s × {fps} a second = {counted(round(frames), 'frame')}",
            f"{minutes_text(question.event_min)} / {round(frames)} = {number(value)} s",
        )
    else:
        frames = question.playback_s * question.fps
        value, unit = frames * question.every_s / 60.0, "min"
        answer = f"It takes {minutes_text(value)}, {counted(round(frames), 'frame')}."
        lines = (
            f"{number(question.playback_s)} s × {fps} a second = {counted(round(frames), 'frame')}",
            f"{round(frames)} × {number(question.every_s)} s = {minutes_text(value)}",
        )
    minutes = value if question.wanted == "event" else question.event_min
    return SumTold(
        answer=answer,
        value=value,
        unit=unit,
        lines=lines,
        assumed=("a frame that takes longer than the interval is not reckoned with",),
        rope=Rope(
            kind="frames",
            minutes=(0.0, minutes),
            level=(1.0, 1.0),
            top="first frame",
            bottom=counted(round(frames), "frame"),
        ),
    )


def transfer(question: Transfer) -> SumTold:
    """The slowest of reading, cable and writing sets the pace (model/memory#copies)."""
    paces = {
        "reading": question.read_mb_s,
        "the link": question.link_mb_s,
        "writing": question.write_mb_s,
    }
    slowest = min(paces, key=lambda name: paces[name])
    pace = paces[slowest]
    minutes = question.gb * 1000.0 / pace / 60.0
    return SumTold(
        answer=f"It takes {minutes_text(minutes)}; {slowest} sets the pace.",
        value=minutes,
        unit="min",
        lines=(
            f"slowest of {number(question.read_mb_s)}, {number(question.link_mb_s)} and "
            f"{number(question.write_mb_s)} MB/s = {number(pace)} MB/s",
            f"{number(question.gb)} GB × 1000 / {number(pace)} MB/s = {minutes_text(minutes)}",
        ),
        assumed=("two copies before anything is wiped: twice that, unless both run at once",),
        rope=_room_rope(minutes, f"{number(question.gb)} GB to go", "copied"),
    )
