"""Where gunicorn finds the application; the supervisor sets the environment."""

import os
import signal
import sys
import threading
import time
from pathlib import Path

from .app import create_app

app = create_app(
    Path(os.environ["ZARABANDA_DATA"]),
    access_code=os.environ.get("ZARABANDA_ACCESS_CODE", ""),
    hosts=[name for name in os.environ.get("ZARABANDA_HOSTS", "").split(",") if name],
)


_ARBITER = os.getppid()
_LOOK_EVERY_S = 0.2


def _end_with_supervisor() -> None:
    sys.stdin.read()  # the supervisor holds the other end: it closes when the supervisor is gone, however it went
    if os.getppid() == _ARBITER:
        os.kill(_ARBITER, signal.SIGTERM)


def _end_with_arbiter() -> None:
    while os.getppid() == _ARBITER:
        time.sleep(_LOOK_EVERY_S)
    os._exit(1)  # killed hard: the next one serves these browsers


if os.environ.get("ZARABANDA_SUPERVISED"):
    for end in (_end_with_supervisor, _end_with_arbiter):
        threading.Thread(target=end, daemon=True, name="parent").start()
