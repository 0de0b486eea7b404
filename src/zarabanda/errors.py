"""The one root exception. Messages give the value, the limits and the remedy."""

MOST_ECHOED = 200


class ZarabandaError(Exception):
    """Something a user or a file asked for cannot be done; the text says what, where and what to do.

    `place` is where in the input the fault lies (a path such as `layers.0.anchor.depth`, or a column of a text).
    """

    def __init__(self, message: str, place: str = "") -> None:
        super().__init__(message)
        self.message = message
        self.place = place


class NotThere(ZarabandaError):
    """What was asked for does not exist, or not any more."""


class OutOfStep(ZarabandaError):
    """What was read and what was compiled are of different edits; the same request succeeds once it has been caught up with."""


class InUse(ZarabandaError):
    """A name or place is taken, or something is in use."""


class Busy(ZarabandaError):
    """More is asked for than can be done at once."""


def brief(text: str, most: int = MOST_ECHOED) -> str:
    """What was given, cut where it is long: a message repeats at most 200 characters of it.

    >>> brief("x" * 300, 10)
    'xxxxxxxxx…'
    """
    return text if len(text) <= most else text[: most - 1] + "…"


def shown(value: object) -> str:
    """What was given, as a message repeats it.

    >>> shown("wobble")
    "'wobble'"
    """
    return brief(repr(value))
