"""Where gunicorn finds the application; the supervisor sets the environment."""

import os
import signal
import sys
import threading
from pathlib import Path

from .app import create_app

app = create_app(Path(os.environ["ZARABANDA_DATA"]), access_code=os.environ.get("ZARABANDA_ACCESS_CODE", ""))


def _end_with_parent() -> None:
    sys.stdin.read()  # the supervisor holds the other end: it closes when the supervisor is gone, however it went
    os.kill(os.getppid(), signal.SIGTERM)


if os.environ.get("ZARABANDA_SUPERVISED"):
    threading.Thread(target=_end_with_parent, daemon=True, name="parent").start()
