"""Polygons with their corners rounded by exact arcs."""

import numpy as np

from dotstack.core.geometry import Contour, Outline, Segments
from dotstack.core.geometry.arrays import Floats, Points, cross, dot

# Corners that turn by less, or back, are drawn as they are: there is nothing to round.
_LEAST = 1e-9


def fitting_radii(nodes: Points, radii: Floats) -> Floats:
    """The corner radii that are drawn: those asked for, or less where a side is too short.

    Where the arcs of two corners want more of a side than there is, both become smaller in
    the same proportion.
    """
    if not radii.any():
        return radii
    reach = radii * _reach_per_radius(nodes)
    side = np.abs(np.roll(nodes, -1) - nodes)
    wanted = reach + np.roll(reach, -1)
    with np.errstate(divide="ignore", invalid="ignore", over="ignore"):
        share = np.where(wanted > side, side / wanted, 1.0)
    fitting: Floats = radii * np.minimum(share, np.roll(share, 1))
    return fitting


def rounded(nodes: Points, radii: Floats) -> Outline:
    """The closed polygon of these nodes, each corner rounded by its radius as far as it fits.

    Of a side that two arcs fill wholly nothing is left: it is no segment.
    """
    sides = Segments.lines(nodes, np.roll(nodes, -1))
    if not radii.any():
        return Outline.from_contours([Contour(sides, closed=True)])
    fitting = fitting_radii(nodes, radii)
    reach = fitting * _reach_per_radius(nodes)
    into, out = _directions(nodes)
    begins, ends = nodes - reach * into, nodes + reach * out
    turn = np.arctan2(cross(into, out), dot(into, out))
    # The centre lies to the side that the corner turns to.
    normal = 1j * np.sign(turn) * into
    centres = begins + fitting * normal
    round_ = fitting.astype(np.complex128) * (1 + 1j)
    arcs = Segments.arcs(centres, round_, np.zeros(len(nodes)), np.angle(-normal), turn).with_ends(
        begins, ends
    )
    sides = Segments.lines(ends, np.roll(begins, -1))
    both = Segments.concatenate([arcs, sides])
    n = len(nodes)
    both = both.take(np.arange(2 * n).reshape(2, n).T.ravel())
    room = np.abs(np.roll(nodes, -1) - nodes)
    kept = np.stack(
        [np.abs(each.end - each.start) > 1e-12 * room for each in (arcs, sides)], axis=1
    ).ravel()
    return Outline.from_contours([Contour.ring(both.take(kept))])


def _directions(nodes: Points) -> tuple[Points, Points]:
    """Unit vectors of the sides that come into the nodes, and of those that leave them."""
    along = np.roll(nodes, -1) - nodes
    out = along / np.abs(along)
    return np.roll(out, 1), out


def _reach_per_radius(nodes: Points) -> Floats:
    """How far along both sides the arc of radius 1 at each corner reaches."""
    into, out = _directions(nodes)
    # The tangent of half the turn, exact for right angles; a spike has nothing to round.
    across, along = np.abs(cross(into, out)), 1.0 + dot(into, out)
    rounds = (across > _LEAST) & (along > _LEAST)
    reach: Floats = np.where(rounds, across / np.where(rounds, along, 1.0), 0.0)
    return reach
