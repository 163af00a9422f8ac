"""Names and ids that are free."""

from collections.abc import Callable
from itertools import count


def free_name(name: str, taken: set[str]) -> str:
    """The name with the next number that none has: Rib, Rib 2, Rib 3.

    >>> free_name("Rib", {"Rib", "Rib 2"})
    'Rib 3'
    """
    stem, _, number = name.rpartition(" ")
    stem, count = (
        (stem, int(number)) if stem and number.isdecimal() and len(number) < 6 else (name, 1)
    )
    while (fresh := f"{stem[:110]} {count}") in taken or count < 2:
        count += 1
    return fresh


def numbered(seed: str) -> Callable[[], str]:
    """Makes ids: the seed with a number from 0 on."""
    serial = count()
    return lambda: f"{seed}-{next(serial)}"
