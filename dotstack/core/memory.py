"""What was computed last, remembered until it is too much."""

from collections import OrderedDict
from collections.abc import Callable, Hashable, Iterable
from dataclasses import dataclass
from threading import Lock
from typing import Any, TypeVar

# What is counted of all that does not tell its weight.
_LIGHT = 200

T = TypeVar("T")


@dataclass(frozen=True, slots=True)
class _Result:
    made: Any
    alive: object
    weight: int


class Memory:
    """The last results by their keys, for several threads.

    An attribute ``weight`` tells about how many bytes a result takes; else it is as heavy as its
    items or fields. The last result is kept however heavy it is.
    """

    def __init__(self, count: int, weight: int) -> None:
        """At most ``count`` results that weigh at most ``weight`` are kept."""
        self._count, self._limit = count, weight
        self._weight = 0
        self._known: OrderedDict[Any, _Result] = OrderedDict()
        self._lock = Lock()

    def get(self, key: Hashable, make: Callable[[], T], alive: object = None) -> T:
        """What was made under this key, or else what is made now.

        ``alive`` is kept with it: that by whose identity the key goes.
        """
        with self._lock:
            known = self._known.get(key)
            if known is not None:
                self._known.move_to_end(key)
        if known is None:
            known = _Result(made := make(), alive, _weight(made))
            self._keep(key, known)
        found: T = known.made
        return found

    def nearest(self, key: Iterable[Hashable]) -> Any | None:
        """Of what is remembered by several things each, what shares most with these, or None."""
        wanted = set(key)
        with self._lock:
            alike = [(len(wanted.intersection(each)), known) for each, known in self._known.items()]
        shared, found = max(alike, key=lambda each: each[0], default=(0, None))
        return found.made if found and shared else None

    def _keep(self, key: Hashable, result: _Result) -> None:
        with self._lock:
            before = self._known.pop(key, None)
            self._known[key] = result
            self._weight += result.weight - (before.weight if before else 0)
            while len(self._known) > 1 and self._is_too_much:
                _, old = self._known.popitem(last=False)
                self._weight -= old.weight

    @property
    def _is_too_much(self) -> bool:
        return len(self._known) > self._count or self._weight > self._limit


def _weight(made: object) -> int:
    weight: int | None = getattr(made, "weight", None)
    if weight is not None:
        return weight
    if isinstance(made, str):
        return _LIGHT + len(made)
    if isinstance(made, tuple | list):
        return sum(map(_weight, made), _LIGHT)
    fields = getattr(made, "__dataclass_fields__", ())
    return sum((_weight(getattr(made, name)) for name in fields), _LIGHT)
