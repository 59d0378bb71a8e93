"""Long lists in parts: `first` and `most` say which, and the answer's `Link` leads to the next (RFC 8288)."""

from __future__ import annotations

from typing import Annotated, TypeAlias, TypeVar

from fastapi import Depends, Query, Request, Response

T = TypeVar("T")


class Paging:
    """Which part of a list is asked for."""

    def __init__(
        self,
        request: Request,
        response: Response,
        first: Annotated[int, Query(ge=0, le=1_000_000)] = 0,
        most: Annotated[int | None, Query(ge=1, le=1000)] = None,
    ) -> None:
        self._request, self._response = request, response
        self.first, self.most = first, most

    def of(self, here: list[T], removed: list[T]) -> tuple[list[T], list[T]]:
        """The part of a list that is asked for: what is here first, then what was removed."""
        end = len(here) + len(removed) if self.most is None else self.first + self.most
        if end < len(here) + len(removed):
            following = self._request.url.include_query_params(first=end)
            self._response.headers["Link"] = f'<{following.path}?{following.query}>; rel="next"'
        before = len(here)
        return here[self.first : end], removed[max(0, self.first - before) : max(0, end - before)]


Pages: TypeAlias = Annotated[Paging, Depends()]
