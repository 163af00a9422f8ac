"""Which things hang together, and what differs along the way, of a graph given by its links.

Both by hooking and pointer jumping (Shiloach and Vishkin 1982): each root is hooked to a
lower one that it is linked to, and all paths are shortened to their roots, until no link is
left between two. A few rounds of whole arrays; for the small graphs of drawings the mere
set-up of a library's routine takes longer.
"""

from dataclasses import dataclass
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

from dotstack.core.geometry.arrays import Bools, Ints

_Number = TypeVar("_Number", np.int32, np.int64)


def labels(n: int, a: Ints, b: Ints) -> Ints:
    """A number for each of n things, from 0; the same for a[i] and b[i].

    >>> labels(4, np.array([0, 3]), np.array([2, 3])).tolist()
    [0, 1, 0, 2]
    """
    root = np.arange(n)
    while True:
        one, two = root[a], root[b]
        apart = one != two
        if not apart.any():
            break
        a, b, one, two = a[apart], b[apart], one[apart], two[apart]
        np.minimum.at(root, np.maximum(one, two), np.minimum(one, two))
        above = root[root]
        while (above != root).any():
            root, above = above, above[above]
    numbered: Ints = (np.cumsum(root == np.arange(n)) - 1)[root]
    return numbered


@dataclass(frozen=True, eq=False, slots=True)
class Forest:
    """Trees that link whatever links link: one made once, to spread many values over.

    Attributes:
        n: how many things there are.
        links: those of the given links that the trees are made of.
        steps: what was done to make them, in order. A hook has the things hooked, the things
            at both ends of the links that did it, and whether the link runs from the thing; a
            jump has things and those that stand for them from then on.

    """

    n: int
    links: Ints
    steps: tuple["_Hook | _Jump", ...]

    @classmethod
    def of(cls, n: int, a: Ints, b: Ints) -> "Forest":
        """The trees over n things that links from a[i] to b[i] hold together."""
        root, left, chosen = np.arange(n), np.arange(len(a)), np.empty(n, np.intp)
        links, steps = [np.empty(0, np.intp)], list["_Hook | _Jump"]()
        while True:
            one, two = root[a[left]], root[b[left]]
            left = left[one != two]
            if not len(left):
                return cls(n, np.concatenate(links), tuple(steps))
            # One of the links that could hook a root does it, whichever.
            chosen[np.maximum(root[a[left]], root[b[left]])] = left
            hooked = np.unique(np.maximum(root[a[left]], root[b[left]]))
            link = chosen[hooked]
            one, two = root[a[link]], root[b[link]]
            steps.append(_Hook(hooked, a[link], b[link], hooked == one))
            links.append(link)
            root[hooked] = np.minimum(one, two)
            while True:
                above = root[root]
                moved = np.flatnonzero(above != root)
                if not len(moved):
                    break
                steps.append(_Jump(moved, root[moved]))
                root = above

    def potentials(self, rise: NDArray[_Number]) -> NDArray[_Number]:
        """Values (n, k) that rise by ``rise``, shape (``links``, k), along each of ``links``.

        The lowest thing of each tree has zeros. Whether other links contradict them is not
        looked at.

        >>> forest = Forest.of(3, np.array([0, 2]), np.array([2, 1]))
        >>> forest.potentials(np.array([[5], [-2]])[forest.links]).T
        array([[0, 3, 5]])
        """
        value, done = np.zeros((self.n, rise.shape[1]), rise.dtype), 0
        for step in self.steps:
            if isinstance(step, _Jump):
                value[step.things] += value[step.above]
            else:
                up = rise[done : done + len(step.things)] + value[step.begin] - value[step.end]
                value[step.things] = np.where(step.begins[:, None], -up, up)
                done += len(step.things)
        return value


@dataclass(frozen=True, eq=False, slots=True)
class _Hook:
    things: Ints
    begin: Ints
    end: Ints
    begins: Bools


@dataclass(frozen=True, eq=False, slots=True)
class _Jump:
    things: Ints
    above: Ints
