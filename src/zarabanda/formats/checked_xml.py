"""XML of other programs, read without entities and within limits, before any library works on it."""

from __future__ import annotations

from collections.abc import Iterator
from xml.etree.ElementTree import Element, ParseError

from defusedxml import DefusedXmlException
from defusedxml.ElementTree import fromstring

from zarabanda.errors import ZarabandaError, brief, shown

MOST_BYTES, MOST_ELEMENTS, DEEPEST, LONGEST = 32 << 20, 400_000, 48, 4_000
"""Of a file; of elements in it, how deep they lie in one another, and how long an attribute may be."""


def read(text: bytes, root: str, what: str) -> Element:
    """The root element. what: the file, as it is called in what is told. ZarabandaError: it is no XML, has entities, is too
    large, too deep, or of something else."""
    if len(text) > MOST_BYTES:
        raise ZarabandaError(f"{what} has {len(text) >> 20:,} MB; {MOST_BYTES >> 20} MB are the most.", what)
    _not_too_many(text, what)
    try:
        found = fromstring(text, forbid_dtd=True)
    except ParseError as error:
        raise ZarabandaError(f"{what} is no XML: {brief(str(error))}. Take another copy of the file.", what) from error
    except DefusedXmlException as error:
        raise ZarabandaError(
            f"{what} has a document type or entities, which are of no use here and can do harm. Take another file.",
            what,
        ) from error
    except (ValueError, LookupError, RecursionError) as error:
        raise ZarabandaError(f"{what} cannot be read: {brief(str(error))}. Save it as UTF-8.", what) from error
    if found.tag != root:
        raise ZarabandaError(f"{what} begins with {shown(found.tag)} where {root} is expected. Choose another file.", what)
    for count, (element, deep) in enumerate(_walk(found)):
        if count > MOST_ELEMENTS:
            raise ZarabandaError(f"{what} has more than {MOST_ELEMENTS:,} elements. Take a smaller file.", what)
        if deep > DEEPEST:
            raise ZarabandaError(f"{what} is nested more than {DEEPEST} deep. Take another file.", what)
        for name, value in element.attrib.items():
            if len(value) > LONGEST:
                raise ZarabandaError(f"{name} of {element.tag} has {len(value):,} characters; {LONGEST:,} are the most.", what)
    return found


def _not_too_many(text: bytes, what: str) -> None:
    """Before parsing, which would build them all."""
    if text.count(b"<") > 2 * MOST_ELEMENTS:
        raise ZarabandaError(f"{what} has more than {MOST_ELEMENTS:,} elements. Take a smaller file.", what)


def _walk(root: Element) -> Iterator[tuple[Element, int]]:
    open_ones = [(root, 1)]
    while open_ones:
        element, deep = open_ones.pop()
        yield element, deep
        open_ones += [(child, deep + 1) for child in element]
