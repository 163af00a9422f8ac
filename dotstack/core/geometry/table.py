"""Structures of arrays: many alike things as one column for each of their fields."""

from collections.abc import Sequence
from typing import Any, ClassVar, Self

import numpy as np

from dotstack.core.geometry.arrays import Bools, Ints


class Table:
    """A dataclass of arrays of one length; a field may be another table."""

    __slots__ = ()
    __dataclass_fields__: ClassVar[dict[str, Any]]

    @property
    def columns(self) -> tuple[Any, ...]:
        """The arrays, in the order of the attributes."""
        return tuple(getattr(self, name) for name in self.__dataclass_fields__)

    def take(self, index: Ints | Bools | slice) -> Self:
        """The rows at ``index``, in that order."""
        return type(self)(*(_taken(column, index) for column in self.columns))

    @classmethod
    def stacked(cls, batches: Sequence[Self]) -> Self:
        """All rows of one or more batches, in order."""
        if len(batches) == 1:
            return batches[0]
        names = cls.__dataclass_fields__
        return cls(*(_stacked([getattr(each, name) for each in batches]) for name in names))


def _stacked(columns: list[Any]) -> Any:
    first = columns[0]
    return first.stacked(columns) if isinstance(first, Table) else np.concatenate(columns)


def _taken(column: Any, index: Ints | Bools | slice) -> Any:
    return column.take(index) if isinstance(column, Table) else column[index]
