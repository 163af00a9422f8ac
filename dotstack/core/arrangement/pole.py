"""The pole of inaccessibility: the centre of the largest circle inside an outline.

Branch and bound over square cells (after Agafonkin 2016), all cells of a level at once,
over chords that stay so near to the curves that the promise holds.
"""

import numpy as np

from dotstack.core.geometry import flat
from dotstack.core.geometry.arrays import Floats, Points, cross, dot
from dotstack.core.geometry.flat import Pieces
from dotstack.core.geometry.outline import Outline

# Shares of the error that is allowed: what the search leaves open, and what chords stray,
# which counts twice.
_SEARCH = 0.6
_STRAY = 0.15
_SURE = 0.9
_FIRST_RAD = 0.1
_FIRST_CELLS = 4
_MOST_CELLS = 64
_LEVELS = 40
_MAX_PIECES = 4000
_MAX_PAIRS = 2_000_000


def inscribed_circle(outline: Outline, error: float = 0.01) -> tuple[float, float, float]:
    """The centre and radius of the largest inscribed circle, to a share of its radius.

    Of several equal ones any may come out; in a sliver thousands of times as long as it is
    wide, a wide place rather than the widest. The outline must have an area, and simple
    contours with holes running the other way, as the arrangement makes them.
    """
    segments = outline.segments
    # Whatever the shape, its area is at most its length times the radius looked for.
    least = outline.area / outline.length
    pieces = flat.flatten(segments, np.arange(len(segments)), 0.0, _FIRST_RAD)
    while len(pieces) < _MAX_PIECES:
        coarse = pieces.sag > _STRAY * error * least
        if not coarse.any():
            break
        halves = flat.halve(segments, pieces.take(coarse))
        pieces = Pieces.concatenate([pieces.take(~coarse), halves])
    at, radius = _search(pieces, outline.bounds, _SURE * least, _SEARCH * error)
    if radius <= 0:
        at, radius = _across(pieces), 0.0
    return at.real, at.imag, radius


def _search(
    pieces: Pieces, bounds: tuple[float, float, float, float], least: float, error: float
) -> tuple[complex, float]:
    """The best centre, and its distance to the nearest chord; negative if none lies inside.

    ``least`` is a radius that there must be, ``error`` the share of it that may be missed.
    """
    x0, y0, x1, y1 = bounds
    side = max(min(x1 - x0, y1 - y0) / _FIRST_CELLS, max(x1 - x0, y1 - y0) / _MOST_CELLS)
    xs = np.arange(x0 + side / 2, x1 + side / 2, side)
    ys = np.arange(y0 + side / 2, y1 + side / 2, side)
    cells: Points = (xs[:, None] + 1j * ys[None, :]).ravel()
    best, at = -np.inf, complex(cells[0])
    for _ in range(_LEVELS):
        room = _room(pieces, cells)
        top = int(room.argmax())
        if room[top] > best:
            best, at = float(room[top]), complex(cells[top])
        hopeful = room + side / np.sqrt(2) > max(least, best * (1 + error))
        cells, room = cells[hopeful], room[hopeful]
        if not len(cells):
            break
        most = _MAX_PAIRS // (4 * len(pieces))
        if len(cells) > most:
            cells = cells[np.argpartition(-room, most)[:most]]
        side /= 2
        corner = np.array([-1 - 1j, -1 + 1j, 1 - 1j, 1 + 1j]) * side / 2
        cells = (cells[:, None] + corner).ravel()
    return at, best


def _across(pieces: Pieces) -> complex:
    """The middle between the longest chord's middle and what lies opposite, on its left."""
    longest = int(np.abs(pieces.chord).argmax())
    chord = complex(pieces.chord[longest])
    middle = complex(pieces.start[longest]) + chord / 2
    inward = 1j * chord / abs(chord)
    gap = (pieces.start - middle) / inward
    far = (pieces.end - middle) / inward
    with np.errstate(invalid="ignore", divide="ignore"):
        at = gap.real + (far - gap).real * gap.imag / (gap.imag - far.imag)
    at = at[(gap.imag * far.imag < 0) & (at > 0)]
    return middle + inward * float(at.min(initial=abs(chord))) / 2


def _room(pieces: Pieces, points: Points) -> Floats:
    """Distances from points to the chords: positive inside, negative outside."""
    gap = points[:, None] - pieces.start
    chord = np.broadcast_to(pieces.chord, gap.shape)
    square = np.maximum(np.abs(pieces.chord) ** 2, np.finfo(float).tiny)
    along = np.clip(dot(chord, gap) / square, 0.0, 1.0)
    distance = np.abs(gap - along * chord).min(axis=1)
    side = cross(chord, gap)
    head = points.imag[:, None] - pieces.end.imag
    up = (gap.imag >= 0) & (head < 0) & (side > 0)
    down = (gap.imag < 0) & (head >= 0) & (side < 0)
    inside = up.sum(axis=1) != down.sum(axis=1)
    room: Floats = np.where(inside, distance, -distance)
    return room
