"""Columns of numbers that loops add to, which are compiled, without knowing how many will come."""

import cython
import numpy as np

from dotstack.core.geometry.arrays import Floats, Ints

_LEAST = 64


class IntColumn:
    """Whole numbers, one after the other; ``clear`` lets the room be used again.

    Attributes:
        count: how many there are.
        view: the room that they are in, which is another one after some more.

    """

    def __init__(self) -> None:
        self._room = np.empty(_LEAST, np.intp)
        self.view = self._room
        self.count = 0

    def append(self, value: cython.Py_ssize_t) -> None:
        """Adds one."""
        if self.count == self.view.shape[0]:
            self._room = np.concatenate([self._room, self._room])
            self.view = self._room
        self.view[self.count] = value
        self.count += 1

    def pop(self) -> cython.Py_ssize_t:
        """Takes the last one out; there is one."""
        self.count -= 1
        return self.view[self.count]

    def insert(self, place: cython.Py_ssize_t, value: cython.Py_ssize_t) -> None:
        """Adds one at ``place``, before those from there on."""
        self.append(value)
        i: cython.Py_ssize_t
        for i in range(self.count - 1, place, -1):
            self.view[i] = self.view[i - 1]
        self.view[place] = value

    def get(self, place: cython.Py_ssize_t) -> cython.Py_ssize_t:
        """The one at ``place``, which is below ``count``."""
        return self.view[place]

    def set(self, place: cython.Py_ssize_t, value: cython.Py_ssize_t) -> cython.void:
        """Puts another one at ``place``."""
        self.view[place] = value

    def clear(self) -> None:
        """Forgets all."""
        self.count = 0

    def array(self) -> Ints:
        """All of them, which later ones are not added to."""
        found: Ints = self._room[: self.count]
        return found


class FloatColumn:
    """Floating-point numbers, as in ``IntColumn``."""

    def __init__(self) -> None:
        self._room = np.empty(_LEAST)
        self._view = self._room
        self.count = 0

    def append(self, value: cython.double) -> None:
        """Adds one."""
        if self.count == self._view.shape[0]:
            self._room = np.concatenate([self._room, self._room])
            self._view = self._room
        self._view[self.count] = value
        self.count += 1

    def get(self, place: cython.Py_ssize_t) -> cython.double:
        """The one at ``place``, which is below ``count``."""
        return self._view[place]

    def set(self, place: cython.Py_ssize_t, value: cython.double) -> cython.void:
        """Puts another one at ``place``."""
        self._view[place] = value

    def clear(self) -> None:
        """Forgets all."""
        self.count = 0

    def array(self) -> Floats:
        """All of them, which later ones are not added to."""
        found: Floats = self._room[: self.count]
        return found
