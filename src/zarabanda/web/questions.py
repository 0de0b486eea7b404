"""What the web process asks the engine, and waits for: what is on stage, held, recorded or drawn at this moment."""

from __future__ import annotations

import itertools
import threading
from collections.abc import Callable
from typing import Any

from zarabanda.errors import ZarabandaError
from zarabanda.messages import (
    Acting,
    Answer,
    AskActing,
    AskCanvas,
    AskHeld,
    AskLook,
    AskStage,
    AskTaken,
    AskTrace,
    CanvasNow,
    HeldNow,
    Look,
    PlayerId,
    Question,
    TakenNow,
    Traced,
    Values,
)

_ANSWER_S = 2.0


class Questions:
    """Questions to the engine, from any thread. send: to the engine; ZarabandaError when it is not there."""

    def __init__(self, send: Callable[[Question], None]) -> None:
        self._send = send
        self._numbers = itertools.count(1)
        self._waiting: dict[int, tuple[threading.Event, list[Any]]] = {}

    def look_of(self, key: PlayerId) -> Values | None:
        """What a frozen effect shows on stage now: values by attribute and head; None where nothing frozen has this key."""
        found: Look = self._asked(lambda number: AskLook(key, number))
        return found.values

    def stage_of(self, heads: list[str]) -> Values:
        """What heads have on stage now, below the levels: values by attribute and head."""
        found: Look = self._asked(lambda number: AskStage(heads, number))
        return found.values or {}

    def held_on(self, heads: list[str]) -> HeldNow:
        """What is held on heads now, below effects, and which effects run on them."""
        found: HeldNow = self._asked(lambda number: AskHeld(heads, number))
        return found

    def taken_of(self, timeline: int) -> TakenNow:
        """What was recorded of a song; it is forgotten then."""
        found: TakenNow = self._asked(lambda number: AskTaken(timeline, number))
        return found

    def trace_of(self, head: str, attribute: str) -> Traced:
        """Where a value on stage comes from, and the slots it comes out at."""
        found: Traced = self._asked(lambda number: AskTrace(head, attribute, number))
        return found

    def acting(self, effect_id: int) -> list[tuple[str, list[str]]]:
        """On which heads an effect runs now: where each that plays comes from, and the keys of its heads."""
        found: Acting = self._asked(lambda number: AskActing(effect_id, number))
        return found.plays

    def canvas_of(self, pixel_map: int, picture: int) -> CanvasNow:
        """What the layers of a pixel map, or of a picture on it, look like now."""
        found: CanvasNow = self._asked(lambda number: AskCanvas(pixel_map, picture, number))
        return found

    def answered(self, answer: Answer) -> None:
        """The engine has answered. Nobody may be waiting any more."""
        waiting = self._waiting.get(answer.ref)
        if waiting is not None:
            waiting[1].append(answer)
            waiting[0].set()

    def _asked(self, question: Callable[[int], Question]) -> Any:
        number, arrived, answer = next(self._numbers), threading.Event(), list[Answer]()
        self._waiting[number] = (arrived, answer)
        try:
            self._send(question(number))
            if not arrived.wait(_ANSWER_S):
                raise ZarabandaError("The engine did not answer in time; try again.")
        finally:
            self._waiting.pop(number, None)
        return answer[0]
