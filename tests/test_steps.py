"""A step of the whole run: what becomes of one that does not end."""

from __future__ import annotations

import os
import sys

import psutil
import pytest

from tools.testing import TOO_LONG, done


def test_a_step_that_hangs_is_ended_with_all_it_started(capfd: pytest.CaptureFixture[str]) -> None:
    """A server that does not stop, started by a step that waits for it."""
    serves = "import signal, time; signal.signal(signal.SIGTERM, signal.SIG_IGN); time.sleep(60)"
    waits = f"""
import subprocess, sys
child = subprocess.Popen([sys.executable, "-c", "{serves}"], start_new_session=True)
print(child.pid, flush=True)
child.wait()
"""
    assert done([sys.executable, "-c", waits], dict(os.environ), limit_s=3.0) == TOO_LONG
    told = capfd.readouterr().out
    pid = int(told.splitlines()[0])
    assert "not done in 0 min, ended" in told
    assert not psutil.pid_exists(pid) or psutil.Process(pid).status() == psutil.STATUS_ZOMBIE
