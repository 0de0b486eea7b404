"""OSC messages of cues as packets, and what received ones say (Open Sound Control 1.0)."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from pythonosc.osc_bundle import OscBundle, ParseError
from pythonosc.osc_message import OscMessage
from pythonosc.osc_message import ParseError as MessageError
from pythonosc.osc_message_builder import OscMessageBuilder

Argument = bool | int | float | str


def encode(content: Mapping[str, Any]) -> bytes:
    """The packet of a message: its address and arguments; whole numbers go as int32, others as float32.

    >>> encode({"address": "/clip", "arguments": [3]}).hex(" ")
    '2f 63 6c 69 70 00 00 00 2c 69 00 00 00 00 00 03'
    """
    builder = OscMessageBuilder(address=content["address"])
    for argument in content["arguments"]:
        builder.add_arg(argument)
    return bytes(builder.build().dgram)


def in_words(data: bytes) -> list[str]:
    """What a received packet says, one line a message; ValueError where it cannot be read.

    >>> in_words(encode({"address": "/caption", "arguments": ["Tide", 2, True]}))
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
    return f"{argument:g}" if isinstance(argument, float) else f'"{argument}"' if isinstance(argument, str) else str(argument)
