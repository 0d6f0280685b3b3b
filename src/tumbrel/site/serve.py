"""Serve the application on loopback: `python -m tumbrel.site.serve --port 8737 --demo`."""

from __future__ import annotations

import argparse
import os
import threading

from waitress.server import create_server

from .collecting import collect_seldom

WARM_AFTER_S = 8.0


def main() -> None:
    """Bring the database up to date, load the demo trips when asked, and serve until stopped."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--port", type=int, required=True)
    parser.add_argument("--demo", action="store_true", help="load missing demo trips first")
    chosen = parser.parse_args()
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "tumbrel.site.settings")
    from .wsgi import application  # noqa: PLC0415 - settings are named first

    _prepare(demo=chosen.demo)
    collect_seldom()
    warm = threading.Timer(WARM_AFTER_S, _warm)
    warm.daemon = True
    warm.start()
    server = create_server(application, host="127.0.0.1", port=chosen.port, threads=6, ident=None)
    print(f"Tumbrel is at http://127.0.0.1:{chosen.port}/  (Ctrl+C stops it)", flush=True)
    server.run()


def _prepare(*, demo: bool) -> None:
    from django.core.management import call_command  # noqa: PLC0415 - after the settings

    call_command("migrate", verbosity=0)
    if demo:
        call_command("load_demo")


def _warm() -> None:
    """Load the slow libraries while nobody waits: the sun's, and the one that fits bench runs."""
    import scipy.optimize  # noqa: F401, PLC0415 - slow to import

    from tumbrel.core.light import sun_heights_of_day  # noqa: PLC0415 - slow to import

    sun_heights_of_day(0.0, 0.0, 0.0, 0)
    collect_seldom()


if __name__ == "__main__":
    main()
