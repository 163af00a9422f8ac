"""How often each operand goes round each face, and which operands cover it."""

import numpy as np

from dotstack.core.arrangement.faces import Faces
from dotstack.core.arrangement.graph import Graph
from dotstack.core.arrangement.linked import Forest
from dotstack.core.geometry.arrays import Bools

# How many numbers are held at a time: with thousands of operands, most of them are zeros.
_AT_ONCE = 4_000_000
_SEED = 20_241


def covers(graph: Graph, faces: Faces, evenodd: Bools) -> Bools:
    """Shape (faces, operands): which operands cover which face; face 0 is outside.

    ``evenodd`` has shape (operands,); the others fill by the nonzero rule.
    """
    count, operands = len(faces.areas), len(evenodd)
    forest = _forest(faces)
    place = np.full(len(graph), -1)
    place[forest.links] = np.arange(len(forest.links))
    runs = graph.runs
    of = place[runs.edge]
    found = np.empty((count, operands), np.bool_)
    step = max(1, _AT_ONCE // count)
    for first in range(0, operands, step):
        last = min(first + step, operands)
        mine = (of >= 0) & (runs.operand >= first) & (runs.operand < last)
        rise = np.zeros((len(forest.links), last - first), np.int32)
        rise[of[mine], runs.operand[mine] - first] = runs.passes[mine]
        winding = forest.potentials(rise)
        # Outside it is zero.
        winding -= winding[0]
        found[:, first:last] = np.where(evenodd[first:last], winding % 2 != 0, winding != 0)
    return found


def contradicts_itself(graph: Graph, faces: Faces) -> bool:
    """Whether across some edge some winding changes by other than what its operand passes.

    All operands at once, each under a random weight (after Freivalds 1977): that two sums
    are equal by chance has odds of one in 2⁶⁴.
    """
    if not len(graph):
        return False
    runs, forest = graph.runs, _forest(faces)
    weights = np.random.default_rng(_SEED).integers(-(2**62), 2**62, int(runs.operand.max()) + 1)
    rise = np.zeros(len(graph), np.int64)
    np.add.at(rise, runs.edge, runs.passes * weights[runs.operand])
    total = forest.potentials(rise[forest.links, None])[:, 0]
    left, right = faces.of_half_edge[0::2], faces.of_half_edge[1::2]
    return bool((total[left] - total[right] != rise).any())


def _forest(faces: Faces) -> Forest:
    """Crossing an edge from its right to its left adds its passes."""
    return Forest.of(len(faces.areas), faces.of_half_edge[1::2], faces.of_half_edge[0::2])
