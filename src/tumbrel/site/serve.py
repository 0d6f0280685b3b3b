"""Serve the application on loopback: `python -m tumbrel.site.serve --port 8737`."""

from __future__ import annotations

import argparse
import gc
import os
import threading

from waitress import serve

WARM_AFTER_S = 8.0


def main() -> None:
    """Serve until stopped."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--port", type=int, required=True)
    port = parser.parse_args().port
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "tumbrel.site.settings")
    from .wsgi import application

    gc.collect()
    gc.freeze()
    warm = threading.Timer(WARM_AFTER_S, _warm)
    warm.daemon = True
    warm.start()
    serve(application, host="127.0.0.1", port=port, threads=6, ident=None)


def _warm() -> None:
    """Load the sun library while nobody waits, for the first trip at a new place."""
    from tumbrel.core.light import sun_heights_of_day

    sun_heights_of_day(0.0, 0.0, 0.0, 0)


if __name__ == "__main__":
    main()
