"""What is asked: a shot, what counts, and how it is paid for."""

from __future__ import annotations

from typing import Annotated, Literal, TypeAlias, get_args

from pydantic import Field

from hextan.core.base import Metres, Part
from hextan.core.shots import Shot

#: What choices are ranked by.
RankedBy: TypeAlias = Literal["blur", "field", "weight", "price"]
PaidBy: TypeAlias = Literal["hire", "buy"]
RANKED_BY: tuple[RankedBy, ...] = get_args(RankedBy)


class WorthAsk(Part):
    """One shot in everything that is owned, and in what could be hired or bought."""

    #: Its framing, room, stop and all else that it needs; its pin and the plan are passed over.
    shot: Shot
    ranked_by: RankedBy = "blur"
    #: Whether a softer background is the better one, or a sharper.
    look: Literal["soft", "deep"] = "soft"
    #: What is paid for what is not owned: hire for the days of the production, or its price.
    pay: PaidBy = "hire"
    #: Whether what the plan carries costs nothing more.
    planned: bool = True
    #: How far behind the subject the light is whose blur counts; None: far away.
    behind_m: Metres | None = None
    #: Also what the catalogue has and the package does not.
    catalogue: bool = False
    #: So many choices are told at most.
    most: Annotated[int, Field(ge=1, le=400)] = 40
