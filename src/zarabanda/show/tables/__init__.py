"""The tables of a show. Documents (effects, modes, selections) are JSON columns, checked by `formats` at the boundary."""

from .base import NEVER_AGAIN, Base
from .kept import Edit, Reference, Show
from .making import DraftEffect, DraftFan, DraftValue, EffectRow, PaletteRow, TempoRow
from .pixels import PictureRow, PixelMapRow
from .playing import ActionListRow, BuskPage, BuskRow, ControlRow, CueListRow, CueRow, LookRow, Page, PlaceRow, SpecialRow
from .rig import DeviceRow, Fixture, Group, Mode, RouteRow
from .timelines import EventRow, MarkerRow, TimelineRow, TrackRow

__all__ = [
    "NEVER_AGAIN",
    "ActionListRow",
    "Base",
    "BuskPage",
    "BuskRow",
    "ControlRow",
    "CueListRow",
    "CueRow",
    "DeviceRow",
    "DraftEffect",
    "DraftFan",
    "DraftValue",
    "Edit",
    "EffectRow",
    "EventRow",
    "Fixture",
    "Group",
    "LookRow",
    "MarkerRow",
    "Mode",
    "Page",
    "PaletteRow",
    "PictureRow",
    "PixelMapRow",
    "PlaceRow",
    "Reference",
    "RouteRow",
    "Show",
    "SpecialRow",
    "TempoRow",
    "TimelineRow",
    "TrackRow",
]
