"""Serve the application on loopback: `python -m tumbrel.site.serve --port 8737 --demo`."""

from __future__ import annotations

import argparse
import logging
import os
import signal
import sys
import threading
from collections.abc import Callable
from datetime import UTC, datetime
from types import FrameType

from waitress.server import create_server

from tumbrel.compiling import build_behind, end_behind
from tumbrel.history.data_folder import Unusable
from tumbrel.working.collecting import collect_seldom

WARM_AFTER_S = 8.0
HOUR_S = 3600.0
FIRST_HOUR_S = 60.0
THREADS = 40  # most of them wait for a worker process
CONNECTIONS = 600
IDLE_S = 60

log = logging.getLogger(__name__)


def main() -> int:
    """Bring the database up to date, load the demo trips when asked, and serve until stopped."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--port", type=int, required=True)
    parser.add_argument("--demo", action="store_true", help="load missing demo trips first")
    chosen = parser.parse_args()
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "tumbrel.site.settings")
    signal.signal(signal.SIGTERM, _end)
    signal.signal(signal.SIGINT, signal.default_int_handler)  # a shell may have it ignored
    try:
        return _serve(chosen.port, demo=chosen.demo)
    except Unusable as error:
        print(f"Tumbrel cannot start: {error}", file=sys.stderr)
        return 2
    except KeyboardInterrupt:  # before it served
        return 0


def _end(_signal: int, _frame: FrameType | None) -> None:
    """Stop as Ctrl+C does."""
    raise KeyboardInterrupt


def _serve(port: int, *, demo: bool) -> int:
    from .wsgi import application  # noqa: PLC0415, I001 - settings are named first
    from django.conf import settings  # noqa: PLC0415 - as above
    from django.core.management import call_command  # noqa: PLC0415 - as above
    from tumbrel.trips.loading import loaded, loaded_with_sun  # noqa: PLC0415 - as above
    from tumbrel.working.desks import end_work, work_apart  # noqa: PLC0415 - as above
    from tumbrel.history.copies import fold  # noqa: PLC0415 - as above
    from .entering import ENTER, ENTRY_KEY  # noqa: PLC0415 - as above
    from .starting import alone_on, make_ready  # noqa: PLC0415 - as above

    with alone_on(settings.DATA):
        make_ready(settings.DATA, datetime.now(UTC))
        try:
            server = create_server(
                application,
                host="127.0.0.1",
                port=port,
                threads=THREADS,
                ident=None,
                connection_limit=CONNECTIONS,
                channel_timeout=IDLE_S,
                asyncore_use_poll=True,
                channel_request_lookahead=1,  # so that work ends when the asker has gone
            )
        except OSError as error:
            raise Unusable(f"port {port} cannot be used ({error.strerror}).") from error
        work_apart(loaded_with_sun, loaded)
        if demo:
            call_command("load_demo")
        collect_seldom()
        _later(WARM_AFTER_S, _warm)
        _later(FIRST_HOUR_S, _each_hour)
        address = f"http://127.0.0.1:{port}{ENTER}?key={ENTRY_KEY}"
        print(f"Tumbrel is at {address}  (Ctrl+C stops it)", flush=True)
        building = build_behind()
        try:
            server.run()
        except KeyboardInterrupt:
            log.info("stopped")
        finally:
            signal.signal(signal.SIGTERM, signal.SIG_IGN)
            server.close()
            end_behind(building)
            end_work()
            fold(settings.DATA)
        return 0


def _later(seconds: float, do: Callable[[], None]) -> None:
    timer = threading.Timer(seconds, do)
    timer.daemon = True
    timer.start()


def _each_hour() -> None:
    """The day's copy, and what has been in the bin for long; a failure stops nothing else."""
    from django.conf import settings  # noqa: PLC0415 - settings are named first
    from django.db import DatabaseError, connection  # noqa: PLC0415 - as above

    from tumbrel.history.copies import copy_of_day  # noqa: PLC0415 - as above
    from tumbrel.trips.bin import empty_bin  # noqa: PLC0415 - as above

    try:
        copy_of_day(settings.DATA, datetime.now(UTC))
        empty_bin(datetime.now(UTC))
    except (Unusable, DatabaseError) as error:
        log.warning("the hour's work failed: %s", error)
    finally:
        connection.close()
    _later(HOUR_S, _each_hour)


def _warm() -> None:
    """Load the slow libraries while nobody waits: the sun's, and the one that fits bench runs."""
    import scipy.optimize  # noqa: F401, PLC0415 - slow to import

    from tumbrel.core.light import sun_heights_of_day  # noqa: PLC0415 - slow to import

    sun_heights_of_day(0.0, 0.0, 0.0, 0)
    collect_seldom()


if __name__ == "__main__":
    sys.exit(main())
