"""OSC messages of cues as packets, and what received ones say (Open Sound Control 1.0)."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping
from typing import Any

from pythonosc.osc_bundle import OscBundle, ParseError
from pythonosc.osc_message import OscMessage
from pythonosc.osc_message import ParseError as MessageError
from pythonosc.osc_message_builder import OscMessageBuilder

Argument = bool | int | float | str
_WORD = re.compile(r'"(?:[^"\\]|\\.)*"|\S+')
_WHOLE = re.compile(r"[+-]?\d+")
_HIGHEST = 2**31


def read_arguments(text: str) -> list[Argument]:
    """Arguments as they are typed: whole numbers, numbers with a point, texts (in quotes where they have spaces), true and false.

    >>> read_arguments('3 1.0 on "a line" true')
    [3, 1.0, 'on', 'a line', True]
    """
    return [_argument(word) for word in _WORD.findall(text)]


def _argument(word: str) -> Argument:
    if word[0] == '"':
        if len(word) < 2 or word[-1] != '"':
            raise ValueError(f"the text {word} is not closed: write a second quotation mark")
        return re.sub(r"\\(.)", r"\1", word[1:-1])
    if word in ("true", "false"):
        return word == "true"
    if _WHOLE.fullmatch(word):
        if not -_HIGHEST <= int(word) < _HIGHEST:
            raise ValueError(f"{word} is out of range: whole numbers go from −2147483648 to 2147483647")
        return int(word)
    try:
        number = float(word)
    except ValueError:
        return word
    return number if math.isfinite(number) else word


def encode(content: Mapping[str, Any]) -> bytes:
    """The packet of a message: its address and arguments; whole numbers go as int32, others as float32.

    >>> encode({"address": "/clip", "arguments": "3"}).hex(" ")
    '2f 63 6c 69 70 00 00 00 2c 69 00 00 00 00 00 03'
    """
    builder = OscMessageBuilder(address=content["address"])
    for argument in read_arguments(content["arguments"]):
        plain = isinstance(argument, int) and not isinstance(argument, bool)
        builder.add_arg(argument, "i" if plain else None)
    return bytes(builder.build().dgram)


def in_words(data: bytes) -> list[str]:
    """What a received packet says, one line a message; ValueError where it cannot be read.

    >>> in_words(encode({"address": "/caption", "arguments": "Tide 2 true"}))
    ['/caption "Tide" 2 true']
    """
    try:
        if OscBundle.dgram_is_bundle(data):
            return [words for one in OscBundle(data) for words in in_words(one.dgram)]
        message = OscMessage(data)
    except (ParseError, MessageError, IndexError) as error:
        raise ValueError(f"no OSC packet: {error}") from error
    return [" ".join([message.address, *map(argument_words, message.params)])]


def argument_words(argument: Any) -> str:
    """An argument as it is written: texts in quotes.

    >>> argument_words(0.5), argument_words("on"), argument_words(False)
    ('0.5', '"on"', 'false')
    """
    if isinstance(argument, bool):
        return "true" if argument else "false"
    if isinstance(argument, float):
        return repr(round(argument, 4))
    return f'"{argument}"' if isinstance(argument, str) else str(argument)
