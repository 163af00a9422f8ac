"""The drawing *Quay signs*."""

import math

from dotstack.demo.hand import CLAY, INK, MOSS, MUSTARD, TIDE, Hand


def draw(hand: Hand) -> None:
    """Draws all plates."""
    _lamp_tower(hand)
    _mussel(hand)
    _tide_ring(hand)
    _kettle_house(hand)
    _night_ferry(hand)
    _rope_knot(hand)


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
    # The ribs spread from the hinge below: one, spun about it.
    rib = hand.box("Rib", 128, 128, 5, 140)
    ribs = hand.spin("Ribs", rib, 128, 256, count=5, whole_deg=32, start_deg=-106)
    hand.combine("cut", "Mussel", lens, ribs)


def _tide_ring(hand: Hand) -> None:
    hand.plate("Tide ring")
    disc = hand.circle("Outer disc", 128, 128, 96, MOSS)
    wave = hand.circle("Wave", 128, 28, 15)
    # One number changes all waves, and how far out they run.
    hand.follow(wave, "wave", 15, rx="wave", ry="wave")
    waves = hand.spin("Waves", wave, 128, 128, count=12)
    hand.follow(waves, "reach", 100, layout__radius="reach")
    well = hand.circle("Well", 100, 100, 58)
    hand.same_centre(disc, well)
    hand.combine("cut", "Tide ring", disc, waves, well)


def _kettle_house(hand: Hand) -> None:
    hand.plate("Kettle house")
    handle = hand.ring("Handle", 118, 98, 46, 0.76, CLAY)
    spout = hand.drop("Spout", 176, 140, 18, 3.5, CLAY, angle=48)
    belly = hand.circle("Belly", 118, 150, 60, CLAY)
    foot = hand.box("Foot", 118, 207, 104, 16, CLAY, radius=6)
    body = hand.combine("join", "Body", handle, spout, belly, foot)
    wall = hand.box("Wall", 118, 166, 38, 34, CLAY)
    roof = hand.polygon("Roof", 118, 141, 3, 30, 24, CLAY)
    door = hand.box("Door", 118, 177, 12, 20, CLAY, radius=3)
    house = hand.combine("join", "House", wall, roof)
    hand.do("arrange", ids=[door], to="top")
    open_house = hand.combine("cut", "House with its door", house, door)
    hand.combine("cut", "Kettle", body, open_house)
    hand.drop("Steam", 224, 72, 7, 2.6, TIDE, angle=12)
    hand.drop("Steam", 238, 50, 5, 2.6, TIDE, angle=24)


def _night_ferry(hand: Hand) -> None:
    hand.plate("Night ferry")
    disc = hand.circle("Great disc", 128, 80, 120, INK)
    above = hand.box("All above the deck", 128, 40, 260, 200)
    hand.combine("cut", "Hull", disc, above)
    cabin = hand.box("Cabin", 128, 120, 116, 40, INK, radius=8)
    windows = [hand.circle("Window", x, 118, 8) for x in (84, 102, 132, 172)]
    hand.do("spread", ids=windows, axis="x", by="centres")
    hand.combine("alternate", "Deck house", cabin, *windows)
    hand.box("Funnel", 156, 85, 26, 30, CLAY, radius=3)
    hand.star("North star", 66, 66, 8, 22, 0.4, MUSTARD)
    moon = hand.circle("Moon", 216, 50, 24, MUSTARD)
    clouds = [
        hand.box("Cloud", 230, 44, 40, 6, INK, radius=3),
        hand.box("Cloud", 204, 57, 40, 6, INK, radius=3),
    ]
    hand.do("put-inside", ids=clouds, holder=moon, id="demo-moon")
    wake = hand.path("Wake", "M30 206c20-8 28 8 48 0s28 8 48 0 28 8 48 0 28 8 48 0", TIDE, 5)
    waterline = hand.line("Waterline", 128, 196, 240)
    hand.do("set-state", ids=[waterline], guide=True)
    hand.do("arrange", ids=[waterline, wake], to="bottom")


def _rope_knot(hand: Hand) -> None:
    hand.plate("Rope knot")
    turns = (0, math.tau / 3, -math.tau / 3)
    ropes = [
        hand.ring(name, 128 + 40 * math.sin(turn), 134 - 40 * math.cos(turn), 60, 0.72, colour)
        for turn, name, colour in zip(
            turns, ("Moss rope", "Mustard rope", "Tide rope"), (MOSS, MUSTARD, TIDE), strict=True
        )
    ]
    # Each goes over the one before, and the last would go over the first: two strokes along
    # the first bring that up, so that each goes over one and under the other.
    outer = [(89.0, 60.0), (77.6, 105.0), (94.0, 133.0)]
    inner = [(162.0, 133.0), (143.8, 143.0), (128.0, 146.0)]
    hand.pick_regions("Rope knot", ropes, [(MOSS, outer), (MOSS, inner)])
