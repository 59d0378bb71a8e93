"""The rules of the job: pure functions over NumPy. No web, no database, no files, no clock."""

from hextan.core.evaluation import evaluate

__all__ = ["evaluate"]
