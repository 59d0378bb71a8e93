"""What does a question in one line mean, and what is its answer?"""

from hextan.core.ask.asked import MOST_LETTERS, ask
from hextan.core.ask.questions import QUESTIONS

__all__ = ["MOST_LETTERS", "QUESTIONS", "ask"]
