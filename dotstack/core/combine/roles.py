"""Roles: what each member of a compound does to all that lies under it."""

from collections.abc import Sequence
from enum import StrEnum

import numpy as np

from dotstack.core.geometry.arrays import Bools


class Role(StrEnum):
    """What a member does to what the members under it have left."""

    ADDS = "adds"
    CUTS = "cuts"
    LIMITS = "limits"
    ALTERNATES = "alternates"


def covered(covers: Bools, roles: Sequence[Role]) -> Bools:
    """Which faces remain, shape (faces,), when the operands act bottom to top.

    ``covers`` has shape (faces, operands), ``roles`` one role for each operand. The
    lowest operand acts on nothing: it can add or alternate, but has nothing to cut.
    """
    kept = np.zeros(len(covers), np.bool_)
    for role, inside in zip(roles, covers.T, strict=True):
        if role is Role.ADDS:
            kept |= inside
        elif role is Role.CUTS:
            kept &= ~inside
        elif role is Role.LIMITS:
            kept &= inside
        else:
            kept ^= inside
    return kept
