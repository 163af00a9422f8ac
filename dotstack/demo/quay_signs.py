"""The drawing *Quay signs*."""

import math

from dotstack.demo.hand import CLAY, INK, MOSS, MUSTARD, TIDE, Hand


def draw(hand: Hand) -> None:
    """Draws all plates."""
    _lamp_tower(hand)
    _mussel(hand)
    _tide_ring(hand)
    _night_ferry(hand)


def _lamp_tower(hand: Hand) -> None:
    hand.plate("Lamp tower")
    hill = hand.circle("Hill", 128, 236, 86, MOSS, ry=34)
    sea = hand.box("Sea", 128, 256, 200, 40)
    hand.combine("cut", "Island", hill, sea)
    spire = hand.polygon("Spire", 128, 133, 3, 23, 180, INK)
    storeys = hand.box("Storeys", 128, 169, 60, 108)
    hand.combine("overlap", "Tower", spire, storeys)
    again = hand.polygon("Spire", 128, 133, 3, 23, 180, CLAY)
    course = hand.box("Course", 128, 192, 60, 16, CLAY)
    hand.combine("overlap", "Band", again, course)
    hand.box("Gallery", 128, 111, 44, 9, INK, radius=4.5)
    dome = hand.circle("Dome", 128, 80, 11.5)
    wall = hand.box("Wall", 128, 93.5, 23, 27)
    hand.combine("join", "Lamp room", dome, wall)
    left = hand.polygon("Left beam", 58, 88, 3, 50, 59, MUSTARD, angle=90)
    right = hand.polygon("Right beam", 198, 88, 3, 50, 59, MUSTARD, angle=-90)
    disc = hand.circle("Disc", 128, 88, 30.7)
    beams = hand.combine("cut", "Beams", left, right, disc)
    hand.role(beams, right, "adds")
    hand.circle("Lamp", 128, 88, 7, MUSTARD)


def _mussel(hand: Hand) -> None:
    hand.plate("Mussel")
    above = hand.circle("Upper disc", 128, 182, 104, TIDE)
    below = hand.circle("Lower disc", 128, 74, 104, TIDE)
    lens = hand.combine("overlap", "Lens", above, below)
    ribs = [
        hand.box("Rib", 128 + 5.4 * lean, 128, 5, 130, angle=lean) for lean in (-14, -7, 0, 7, 14)
    ]
    hand.combine("cut", "Mussel", lens, *ribs)


def _tide_ring(hand: Hand) -> None:
    hand.plate("Tide ring")
    disc = hand.circle("Outer disc", 128, 128, 96, MOSS)
    waves = []
    for i in range(12):
        turn = math.tau * i / 12
        x, y = 128 + 100 * math.sin(turn), 128 - 100 * math.cos(turn)
        waves.append(hand.circle("Wave", x, y, 15))
    well = hand.circle("Well", 100, 100, 58)
    hand.same_centre(disc, well)
    hand.combine("cut", "Tide ring", disc, *waves, well)


def _night_ferry(hand: Hand) -> None:
    hand.plate("Night ferry")
    hull = hand.box("Side", 128, 168, 196, 56, INK)
    bow = hand.circle("Hollow", 128, 372, 184)
    hand.combine("cut", "Hull", hull, bow)
    cabin = hand.box("Cabin", 136, 118, 116, 36, INK, radius=8)
    windows = [hand.circle("Window", 96 + 27 * i, 118, 8) for i in range(4)]
    hand.combine("alternate", "Deck house", cabin, *windows)
    hand.box("Funnel", 164, 82, 26, 28, CLAY, radius=3)
    hand.star("North star", 66, 66, 8, 22, 0.4, MUSTARD)
