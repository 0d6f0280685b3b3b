"""The card in the pocket: what the hands do at each stop, told once for every form it takes."""

from .changes import changes_between
from .telling import card_of
from .told import CardMove, CardPlace, Filming, FullUnit, Shot, StopChanged, TripCard

__all__ = [
    "CardMove",
    "CardPlace",
    "Filming",
    "FullUnit",
    "Shot",
    "StopChanged",
    "TripCard",
    "card_of",
    "changes_between",
]
