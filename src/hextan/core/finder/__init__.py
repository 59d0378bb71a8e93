"""What can this shot be recorded in, and what would admit the rest?"""

from hextan.core.finder.ask import FinderAsk
from hextan.core.finder.checks import Check, candidates, checks_of
from hextan.core.finder.formats import find_formats

__all__ = [
    "Check",
    "FinderAsk",
    "candidates",
    "checks_of",
    "find_formats",
]
