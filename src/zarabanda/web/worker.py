"""How gunicorn serves us: threads, and no thread waits for a browser that stands still in the middle of a request."""

from __future__ import annotations

import logging
import socket
import struct
from typing import Any

from gunicorn.workers.gthread import ThreadWorker

STANDSTILL_S = 10
"""A request (or the reading of an answer) that makes no progress for so long is given up."""


def _not_a_standstill(record: logging.LogRecord) -> bool:
    return not (record.exc_info and isinstance(record.exc_info[1], BlockingIOError))


class _Listener:
    """A listening socket whose connections give up after a standstill: in the kernel, whatever is done with them later."""

    def __init__(self, listener: Any) -> None:
        self._listener = listener

    def accept(self) -> tuple[socket.socket, Any]:
        connection, address = self._listener.accept()
        for option in (socket.SO_RCVTIMEO, socket.SO_SNDTIMEO):
            connection.setsockopt(socket.SOL_SOCKET, option, struct.pack("ll", STANDSTILL_S, 0))
        return connection, address

    def getsockname(self) -> Any:
        return self._listener.getsockname()


class PageWorker(ThreadWorker):  # type: ignore[misc]  # gunicorn has no types
    """Threads of gunicorn, with that limit."""

    def init_process(self) -> None:
        self.log.error_log.addFilter(_not_a_standstill)
        super().init_process()

    def accept(self, listener: Any) -> None:
        super().accept(_Listener(listener))
