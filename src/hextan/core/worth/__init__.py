"""What is a look worth: for one framing, room and stop, what is owned, could be hired or bought, and what each step up gains?"""

from hextan.core.worth.answers import Worth, WorthRow, WorthStep
from hextan.core.worth.ask import PaidBy, RankedBy, WorthAsk
from hextan.core.worth.view import worth_of

__all__ = ["PaidBy", "RankedBy", "Worth", "WorthAsk", "WorthRow", "WorthStep", "worth_of"]
