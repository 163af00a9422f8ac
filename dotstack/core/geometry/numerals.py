"""Numbers as the shortest decimals that tell them, one by one and many at once."""

from collections.abc import Sequence

import numpy as np
from pydantic_core import to_json

from dotstack.core.geometry.arrays import Floats


def format_number(value: float, precision: int) -> str:
    """The shortest decimal that rounds ``value`` to ``precision`` places; never "-0".

    >>> format_number(0.5, 3), format_number(-0.0004, 3), format_number(12.0, 3)
    ('.5', '0', '12')
    """
    text = f"{value:.{precision}f}"
    if "." in text:
        text = text.rstrip("0").rstrip(".")
    if text in ("-0", ""):
        return "0"
    return text.replace("0.", ".", 1) if text.startswith(("0.", "-0.")) else text


def rounded(point: complex, precision: int) -> complex:
    """The point with its coordinates rounded to decimals, as ``in_units`` rounds them."""
    scale = 10.0**precision
    return complex(round(point.real * scale) / scale, round(point.imag * scale) / scale)


def in_units(values: Floats, precision: int) -> Floats:
    """Numbers as whole counts of the last decimal."""
    # Adding 0 makes 0 of -0.
    return np.rint(values * 10.0**precision) + 0.0


def texts(units: Sequence[float], precision: int) -> list[str]:
    """The shortest decimals of counts of the last one: as ``format_number``, all at once.

    >>> texts([500.0, -40.0, 12000.0, 0.0], 3)
    ['.5', '-.04', '12', '0']
    """
    if not units:
        return []
    # The shortest numerals that tell a float: those of its decimals, for a whole count of these
    # over a power of ten is the float next to them.
    scale = 10.0**precision
    listed = to_json([unit / scale for unit in units]).decode()
    text = f",{listed[1:-1]},".replace(".0,", ",").replace(",0.", ",.").replace(",-0.", ",-.")
    words = text[1:-1].split(",")
    if "e" in text:
        words = [format_number(float(word), precision) if "e" in word else word for word in words]
    return words
