"""What a request must be before anything looks into it: for us, from our own page, with the code, of a shape that can be read."""

from __future__ import annotations

import hashlib
import hmac
import ipaddress
import json
import re
import secrets
import threading
import time
from collections.abc import Callable, Collection
from typing import Any
from urllib.parse import urlsplit

from flask import Flask, Response, g, jsonify, request
from flask.typing import ResponseReturnValue

from zarabanda.errors import brief
from zarabanda.sound.media import MOST_BYTES

from .parts import Fault

BROWSER_COOKIE, ACCESS_COOKIE = "zarabanda-browser", "zarabanda-access"
LOOPBACK = ("localhost", "127.0.0.1", "[::1]")
_POLICY = (
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; connect-src 'self'; frame-ancestors 'none'"
)
_FILES = re.compile(
    r"^/api/(timelines/\d+/(sound|presses\.mid)|media|shows/file|recordings/[^/]+|rig/(csv|mvr)|kinds/(gdtf|pictures))$"
)
"""Where a file is put: the bodies that are not JSON."""
_MOST_NESTED = 48
_MOST_INTEGER = 2**63 - 1
_FREE_TRIES, _FIRST_PAUSE_S, _LONGEST_PAUSE_S = 5, 2.0, 300.0


def _fault(message: str, status: int, place: str = "") -> ResponseReturnValue:
    return jsonify(Fault(message=message, place=place).model_dump()), status


# who it is for, and from where


def name_of(host: str) -> str:
    """The name in a Host header or an authority, without the port."""
    return re.sub(r":\d*$", "", host.lower())


def _is_address(name: str) -> bool:
    try:
        ipaddress.ip_address(name.strip("[]"))
    except ValueError:
        return False
    return True


def is_for_us(host: str, names: Collection[str]) -> bool:
    """Whether a Host header names this server: by loopback or one of `names`. A rebound name of another site does not.

    Where the server listens on all addresses ("0.0.0.0", "::"), each address of a machine is a name of it: no site can have it.
    """
    name = name_of(host)
    everywhere = "0.0.0.0" in names or "[::]" in names
    return name in LOOPBACK or name in names or (everywhere and _is_address(name))


def is_same_origin(origin: str | None, fetch_site: str | None, host: str) -> bool:
    """Whether a request comes from a page of ours. A program that is no browser says nothing of either."""
    if fetch_site not in (None, "same-origin", "none"):
        return False
    return origin is None or urlsplit(origin).netloc.lower() == host.lower()


# what it carries


def unreadable(value: Any) -> str | None:
    """What of plain JSON data cannot be worked with: nested too deeply, an integer beyond 64 bits, half a character."""
    waiting: list[tuple[Any, int]] = [(value, 1)]
    while waiting:
        one, depth = waiting.pop()
        if depth > _MOST_NESTED:
            return f"it is nested more than {_MOST_NESTED} levels deep"
        if isinstance(one, dict):
            waiting += [(part, depth + 1) for pair in one.items() for part in pair]
        elif isinstance(one, list):
            waiting += [(part, depth + 1) for part in one]
        elif isinstance(one, int) and abs(one) > _MOST_INTEGER:
            return "it has an integer of more than 64 bits"
        elif isinstance(one, str) and not _is_text(one):
            return "it has text with half a character (a lone surrogate)"
    return None


def _is_text(text: str) -> bool:
    try:
        text.encode()
    except UnicodeEncodeError:
        return False
    return True


def _body_fault() -> ResponseReturnValue | None:
    """What is wrong with the body of a request to the API."""
    if not request.content_length and not request.headers.get("Transfer-Encoding"):
        return None
    if not request.is_json:
        given = brief(request.mimetype or "none", 60)
        return _fault(f"Send JSON with the header “Content-Type: application/json”; this came as {given!r}.", 415)
    try:
        value = json.loads(request.get_data())
    except (ValueError, RecursionError) as error:
        return _fault(f"The body is not JSON: {brief(str(error))}.", 422)
    why = unreadable(value)
    return _fault(f"The body cannot be worked with: {why}.", 422) if why else None


# the code


class Door:
    """Lets in who knows the access code. Guessing is slowed: after five failures each further try waits, longer and longer."""

    def __init__(self, code: str, clock: Callable[[], float] = time.monotonic) -> None:
        self._code, self._clock = code.encode(errors="surrogateescape"), clock
        self.token = hmac.new(self._code, b"zarabanda", hashlib.sha256).hexdigest() if code else ""
        self._failures, self._closed_until = 0, 0.0
        self._lock = threading.Lock()

    def wait_s(self) -> float:
        """Seconds until the next try is looked at."""
        return max(0.0, self._closed_until - self._clock())

    def opens(self, given: str) -> bool:
        """Whether this is the code. Not to be asked while `wait_s` is above 0."""
        right = hmac.compare_digest(given.encode(errors="surrogatepass"), self._code)
        with self._lock:
            self._failures = 0 if right else self._failures + 1
            beyond = self._failures - _FREE_TRIES
            if beyond >= 0:
                self._closed_until = self._clock() + min(_FIRST_PAUSE_S * 2**beyond, _LONGEST_PAUSE_S)
        return right

    def knows(self, cookie: str) -> bool:
        """Whether this cookie was given to who knew the code."""
        return not self.token or hmac.compare_digest(cookie.encode(errors="replace"), self.token.encode())


def _access_page(problem: str) -> str:
    return (
        "<!doctype html><html lang=en><meta charset=utf-8><title>Zarabanda</title>"
        "<style>body{background:#14110e;color:#efe7d8;font:18px sans-serif;display:grid;place-content:center;height:90vh}"
        "input,button{font:inherit;padding:.5em;background:#14110e;color:inherit;border:1px solid #8d8477}</style>"
        f"<form method=post action=/access><h1>Zarabanda</h1><p role=alert>{problem}</p>"
        "<label>Access code <input name=code type=password autofocus></label> <button>Enter</button></form></html>"
    )


def _ask_for_code(door: Door) -> ResponseReturnValue:
    if request.method == "POST" and request.path == "/access":
        wait = door.wait_s()
        if wait > 0:
            return _access_page(f"Too many wrong codes. Try again in {wait:.0f} s."), 429, {"Retry-After": f"{wait:.0f}"}
        if door.opens(request.form.get("code", "")):
            response = Response(status=303, headers={"Location": "/"})
            response.set_cookie(ACCESS_COOKIE, door.token, httponly=True, samesite="Strict", max_age=30 * 86400)
            return response
        return _access_page("This is not the code. Ask whoever started Zarabanda."), 401
    if request.path.startswith("/api") or request.path == "/live":
        return _fault("Enter the access code first, on the start page.", 401)
    return _access_page(""), 401


def add_guard(app: Flask, *, access_code: str, names: Collection[str]) -> None:
    """Check every request. names: hosts that the server is known by, beside loopback."""
    door = Door(access_code)
    known = {f"[{name}]" if ":" in name and not name.startswith("[") else name.lower() for name in names}

    @app.before_request
    def check() -> ResponseReturnValue | None:
        g.browser = request.cookies.get(BROWSER_COOKIE, "")[:64] or secrets.token_urlsafe(16)
        if not is_for_us(request.host, known):
            host = brief(name_of(request.host), 80)
            return _fault(f"Zarabanda is not known as {host!r}. Start it with --allow-host {host}, if that is its name.", 403)
        changes = request.method not in ("GET", "HEAD", "OPTIONS") or request.path == "/live"
        if changes and not is_same_origin(request.headers.get("Origin"), request.headers.get("Sec-Fetch-Site"), request.host):
            return _fault("This comes from another site. Open Zarabanda at its own address.", 403)
        if not door.knows(request.cookies.get(ACCESS_COOKIE, "")):
            return _ask_for_code(door)
        if request.method == "PUT" and _FILES.match(request.path):
            request.max_content_length = MOST_BYTES  # it is read in pieces, and looked at as it is
            return None
        if changes and request.path.startswith("/api"):
            return _body_fault()
        return None

    @app.after_request
    def remember(response: Response) -> Response:
        if BROWSER_COOKIE not in request.cookies and request.path != "/live" and hasattr(g, "browser"):
            response.set_cookie(BROWSER_COOKIE, g.browser, httponly=True, samesite="Strict", max_age=365 * 86400)
        response.headers["Content-Security-Policy"] = _POLICY
        response.headers["X-Content-Type-Options"] = "nosniff"
        return response
