"""An integer program, written row by row and solved by HiGHS: the least of one sum after another."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field

import highspy
import numpy as np

#: Sums are held to this.
GRAIN = 1e-5
#: A bound this near to a whole number is it.
_NEAR = 1e-4


class Watch:
    """What a search is told from outside, and tells: how long it may take, whether to stop, how far it is.

    Parameters
    ----------
    left_s : seconds that are left; infinite where nobody waits
    """

    def __init__(
        self,
        left_s: Callable[[], float] = lambda: math.inf,
        stopped: Callable[[], bool] = lambda: False,
        tell: Callable[[str], None] = lambda told: None,
    ) -> None:
        self._left_s = left_s
        self.stopped = stopped
        self.tell = tell

    def part(self, seconds: float) -> Watch:
        """The same for a part that may take no longer than that."""
        began = self._left_s()
        if math.isinf(began):
            return self
        return Watch(lambda: min(self._left_s(), self._left_s() - began + seconds), self.stopped, self.tell)

    @property
    def left_s(self) -> float:
        """Seconds that are left; nothing once it was stopped."""
        return 0.0 if self.stopped() else max(0.0, self._left_s())


@dataclass(frozen=True)
class Found:
    """The best that was found for one sum.

    ``bound`` is what no solution can go below: equal to ``value`` where it is proved.
    """

    value: float
    bound: float
    proved: bool


@dataclass
class Program:
    """Columns with bounds, rows over them. All sums are to be least.

    Columns are between 0 and their upper bound. Rows are ``low <= sum <= high``.
    """

    lower: list[float] = field(default_factory=list)
    upper: list[float] = field(default_factory=list)
    whole: list[bool] = field(default_factory=list)
    rows: list[tuple[float, float, list[int], list[float]]] = field(default_factory=list)
    values: list[float] = field(default_factory=list)

    def columns(self, count: int, upper: float = 1.0, whole: bool = False) -> range:
        """Add columns; give their numbers."""
        first = len(self.upper)
        self.lower += [0.0] * count
        self.upper += [upper] * count
        self.whole += [whole] * count
        return range(first, first + count)

    def row(
        self,
        low: float,
        columns: Sequence[int],
        factors: Sequence[float] | None = None,
        high: float = math.inf,
    ) -> None:
        """Add a row; all factors are 1 where none are given."""
        self.rows.append(
            (low, high, list(columns), [1.0] * len(columns) if factors is None else list(factors))
        )

    def implies(self, first: int, second: int) -> None:
        """One column is never above another."""
        self.row(0.0, (second, first), (1.0, -1.0))

    def fix(self, column: int, value: float) -> None:
        """Hold a column."""
        self.lower[column] = self.upper[column] = value

    def hold(self, cost: dict[int, float], most: float, least: float = -math.inf) -> None:
        """Let a sum not go above something, nor below what is proved to be impossible."""
        self.row(least, list(cost), list(cost.values()), most)

    def least(self, cost: dict[int, float], watch: Watch, step: float = 0.0) -> Found | None:
        """Find the least of a sum; its columns are in ``values`` then.

        Parameters
        ----------
        step : the sum moves in such steps (1 for counts): a bound between two of them is the upper one

        Returns
        -------
        None where nothing at all was found: there is no solution, or it was stopped before the first.
        """
        if not any(cost.values()) and len(self.values) == len(self.upper):
            # Nothing is to be gained: what was found before is as good as all else.
            return Found(0.0, 0.0, True)
        solver = self._solver(cost)
        solver.setOptionValue("time_limit", max(watch.left_s, 0.01) if math.isfinite(watch.left_s) else 1e9)

        def look(event: highspy.HighsCallbackEvent) -> None:
            if watch.stopped():
                event.interrupt()

        solver.cbMipInterrupt += look
        solver.run()
        status, info = solver.getModelStatus(), solver.getInfo()
        if info.primal_solution_status != 2:
            return None
        # Whole columns come back as nearly whole.
        found = solver.getSolution().col_value
        self.values = [float(round(x)) if whole else x for x, whole in zip(found, self.whole, strict=True)]
        value = float(sum(factor * self.values[column] for column, factor in cost.items()))
        proved = status == highspy.HighsModelStatus.kOptimal
        bound = value if proved else max(0.0, float(info.mip_dual_bound))
        if step:
            value = round(value / step) * step
            bound = math.ceil(bound / step - _NEAR) * step
            proved = proved or bound >= value
        return Found(value, min(bound, value), proved)

    def _solver(self, cost: dict[int, float]) -> highspy.Highs:
        # It is not told what was found before: given a start, 1.16.0 called starts optimal that were not.
        lp = highspy.HighsLp()
        lp.num_col_, lp.num_row_ = len(self.upper), len(self.rows)
        costs = np.zeros(len(self.upper))
        for column, factor in cost.items():
            costs[column] += factor
        lp.col_cost_ = costs
        lp.col_lower_, lp.col_upper_ = np.array(self.lower), np.array(self.upper)
        lp.row_lower_ = np.array([row[0] for row in self.rows], dtype=float)
        lp.row_upper_ = np.array([row[1] for row in self.rows], dtype=float)
        lp.a_matrix_.format_ = highspy.MatrixFormat.kRowwise
        lp.a_matrix_.start_ = np.cumsum([0, *(len(row[2]) for row in self.rows)])
        lp.a_matrix_.index_ = np.array([column for row in self.rows for column in row[2]], dtype=np.int32)
        lp.a_matrix_.value_ = np.array([factor for row in self.rows for factor in row[3]], dtype=float)
        kinds = (highspy.HighsVarType.kContinuous, highspy.HighsVarType.kInteger)
        lp.integrality_ = [kinds[whole] for whole in self.whole]
        solver = highspy.Highs()  # type: ignore[no-untyped-call]
        for name, value in (("output_flag", False), ("threads", 1), ("random_seed", 7), ("mip_rel_gap", 0.0), ("mip_abs_gap", 0.0)):  # fmt: skip
            solver.setOptionValue(name, value)
        solver.passModel(lp)
        return solver
