"""The one root exception. Messages give the value, the limits and the remedy."""


class ZarabandaError(Exception):
    """Something a user or a file asked for cannot be done; the text says what, where and what to do.

    `place` is where in the input the fault lies (a path such as `layers.0.anchor.depth`, or a column of a text).
    """

    def __init__(self, message: str, place: str = "") -> None:
        super().__init__(message)
        self.message = message
        self.place = place
