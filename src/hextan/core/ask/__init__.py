"""What does a question in one line mean, and what is its answer?"""

from hextan.core.ask.asked import MOST_LETTERS, ask

__all__ = ["MOST_LETTERS", "ask"]
