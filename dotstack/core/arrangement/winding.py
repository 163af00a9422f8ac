"""How often each operand goes round each face, and which operands cover it."""

from dataclasses import dataclass
from functools import lru_cache

import cython
import numpy as np

from dotstack.core.arrangement.faces import Faces
from dotstack.core.arrangement.graph import Graph
from dotstack.core.geometry.arrays import Bools, Ints, grouped

_SEED, _WEIGHT = 20_241, 2**40


def covers(graph: Graph, tree: "Tree", evenodd: Bools) -> Bools:
    """Shape (faces, operands): which operands cover which face; face 0 is outside.

    ``evenodd`` has shape (operands,); the others fill by the nonzero rule. One winding number for
    each operand is kept on a walk through all faces: a face has the cover of the one that it is
    reached from, but for the operands that pass the edge between.
    """
    found = np.zeros((len(tree.above), len(evenodd)), np.bool_)
    cover: cython.uchar[:, :] = found.view(np.uint8)
    parity: cython.uchar[:] = evenodd.view(np.uint8)
    winding: cython.Py_ssize_t[:] = np.zeros(len(evenodd), np.intp)
    first: cython.Py_ssize_t[:] = np.searchsorted(graph.runs.edge, np.arange(len(graph) + 1))
    operand: cython.Py_ssize_t[:] = graph.runs.operand
    passes: cython.Py_ssize_t[:] = graph.runs.passes
    face: cython.Py_ssize_t[:] = tree.face
    above: cython.Py_ssize_t[:] = tree.above
    half: cython.Py_ssize_t[:] = tree.half
    here: cython.Py_ssize_t = 0
    k: cython.Py_ssize_t
    r: cython.Py_ssize_t
    for k in range(1, face.shape[0]):
        while here != above[face[k]]:
            for r in range(first[half[here] >> 1], first[(half[here] >> 1) + 1]):
                winding[operand[r]] += passes[r] if half[here] & 1 else -passes[r]
            here = above[here]
        here = face[k]
        cover[here, :] = cover[above[here], :]
        for r in range(first[half[here] >> 1], first[(half[here] >> 1) + 1]):
            winding[operand[r]] += -passes[r] if half[here] & 1 else passes[r]
            times: cython.Py_ssize_t = winding[operand[r]]
            cover[here, operand[r]] = times & 1 if parity[operand[r]] else times != 0
    return found


def contradicts_itself(graph: Graph, faces: Faces, tree: "Tree") -> bool:
    """Whether across some edge some winding changes by other than what its operand passes.

    All operands at once, each under a random weight (after Freivalds 1977): that two sums
    are equal by chance has odds of one in 2⁴⁰.
    """
    if not len(graph):
        return False
    edge_of: cython.Py_ssize_t[:] = graph.runs.edge
    operand: cython.Py_ssize_t[:] = graph.runs.operand
    passes: cython.Py_ssize_t[:] = graph.runs.passes
    weight: cython.longlong[:] = _weights(int(graph.runs.operand.max()) + 1)
    rise: cython.longlong[:] = np.zeros(len(graph), np.int64)
    k: cython.Py_ssize_t
    for k in range(edge_of.shape[0]):
        rise[edge_of[k]] += passes[k] * weight[operand[k]]
    total: cython.longlong[:] = np.zeros(len(faces.areas), np.int64)
    face: cython.Py_ssize_t[:] = tree.face
    above: cython.Py_ssize_t[:] = tree.above
    half: cython.Py_ssize_t[:] = tree.half
    for k in range(1, face.shape[0]):
        edge: cython.Py_ssize_t = half[face[k]] >> 1
        over: cython.longlong = -rise[edge] if half[face[k]] & 1 else rise[edge]
        total[face[k]] = total[above[face[k]]] + over
    totals = np.asarray(total)
    left, right = faces.of_half_edge[0::2], faces.of_half_edge[1::2]
    return bool((totals[left] - totals[right] != np.asarray(rise)).any())


@lru_cache(maxsize=64)
def _weights(count: int) -> Ints:
    return np.random.default_rng(_SEED).integers(0, _WEIGHT, count)


@dataclass(frozen=True, eq=False, slots=True)
class Tree:
    """A walk from the outside through all faces, each after the one that it is reached from.

    Attributes:
        face: in that order; face 0, the outside, is the first. Where an arrangement contradicts
            itself some may not be reached.
        above: shape (faces,); the face that each is reached from.
        half: shape (faces,); the half-edge on its side of the edge that it is reached over.

    """

    face: Ints
    above: Ints
    half: Ints

    @classmethod
    def of(cls, faces: Faces) -> "Tree":
        """A walk that goes on from the face reached last that has others beside it."""
        n = len(faces.areas)
        side: cython.Py_ssize_t[:] = faces.of_half_edge
        halves, begins = grouped(faces.of_half_edge, n)
        order: cython.Py_ssize_t[:] = halves
        first: cython.Py_ssize_t[:] = begins
        found = cls(np.zeros(n, np.intp), np.zeros(n, np.intp), np.full(n, -1))
        face: cython.Py_ssize_t[:] = found.face
        above: cython.Py_ssize_t[:] = found.above
        half: cython.Py_ssize_t[:] = found.half
        # By face: the place in ``order`` of the next of its half-edges to look over.
        following: cython.Py_ssize_t[:] = np.array(begins)
        count: cython.Py_ssize_t = 1
        here: cython.Py_ssize_t = 0
        while True:
            if following[here] < first[here + 1]:
                across: cython.Py_ssize_t = order[following[here]] ^ 1
                following[here] += 1
                there: cython.Py_ssize_t = side[across]
                if there != 0 and half[there] < 0:
                    half[there], above[there], face[count] = across, here, there
                    count += 1
                    here = there
            elif here == 0:
                break
            else:
                here = above[here]
        return cls(found.face[:count], found.above, found.half)
