"""The drawing *Slack tide boat hire*: words as shapes, and paint of every kind."""

from dotstack.demo.hand import CLAY, INK, MOSS, MUSTARD, TIDE, Hand

_CARD = "#FBF7EF"
_HEAVY, _WIDE, _SERIF = ("Rubik", "Black"), ("Quicksand", "Bold"), ("EB Garamond", "Bold")
_MIDDLE = {"alignment": "middle"}


def draw(hand: Hand) -> None:
    """Draws all plates."""
    _board(hand)
    _round_sign(hand)
    _signet(hand)
    _wheel(hand, "Wheel", 256)
    _wheel(hand, "Wheel icon", 32)
    _crescent(hand)


def _board(hand: Hand) -> None:
    hand.plate("Board", 432, 240)
    above = hand.box("Upper board", 214, 98, 332, 104, TIDE)
    below = hand.box("Lower board", 214, 168, 224, 64, TIDE)
    ends = [hand.circle("Rope end", x, 98, 34, TIDE) for x in (48, 380)]
    panel = hand.combine("join", "Panel", above, below, *ends)
    hand.do("refine", ids=[panel], refinement={"kind": "corners", "every": "all", "size": 14})
    # A border round a border, and a shadow of all of it.
    border = {"paint": MUSTARD, "width": 5, "position": "outside"}
    edge = {"paint": INK, "width": 2, "position": "outside", "away": 5}
    shadow = {"dx": 4, "dy": 7, "blur": 9, "colour": INK, "opacity": 0.45}
    hand.do("paint", ids=[panel], lines=[border, edge], shadows=[shadow])
    hand.words("Slack tide", "Slack tide", 214, 122, _HEAVY, 48, _CARD, **_MIDDLE)
    hand.words("Boat hire", "BOAT HIRE", 214, 183, _WIDE, 19, MUSTARD, tracking=180, **_MIDDLE)


def _round_sign(hand: Hand) -> None:
    hand.plate("Round sign")
    hand.circle("Disc", 128, 128, 116, MOSS)
    rope = hand.circle("Rope", 128, 128, 110, _CARD)
    strands = {"pattern": [9, 5], "fitted": True}
    line = {"paint": _CARD, "width": 5, "cap": "round", "dashes": strands, "position": "inside"}
    hand.do("paint", ids=[rope], fill=None, lines=[line])
    around = {"kind": "circle", "radius": 78}
    hand.words(
        "Slack tide",
        "SLACK TIDE",
        128,
        128,
        _SERIF,
        22,
        _CARD,
        course=around,
        tracking=60,
        **_MIDDLE,
    )
    foot = {"kind": "circle", "radius": 100, "start_deg": 90, "inside": True}
    hand.words(
        "Boat hire", "BOAT HIRE", 128, 128, _SERIF, 22, _CARD, course=foot, tracking=60, **_MIDDLE
    )
    oars = [hand.box("Oar", 128, 132, 7, 92, _CARD, radius=3.5, angle=lean) for lean in (32, -32)]
    blades = [
        hand.drop("Blade", 128 + side * 24.4, 171, 8, 3, _CARD, angle=-side * 32)
        for side in (1, -1)
    ]
    hand.combine("join", "Oars", *oars, *blades)


def _signet(hand: Hand) -> None:
    hand.plate("Signet")
    disc = hand.circle("Disc", 128, 128, 104, CLAY)
    letters = hand.words("S and T", "ST", 128, 175, _SERIF, 94, INK, tracking=-60, **_MIDDLE)
    hand.combine("cut", "Signet", disc, letters)


def _wheel(hand: Hand, name: str, side: float) -> None:
    """A helm's wheel made solid: live, and as plain faces wherever it is exported."""
    hand.plate(name, side, side)
    unit = side / 256
    middle = 122 * unit
    rim = hand.ring("Rim", middle, middle, 74 * unit, 0.72, CLAY)
    hub = hand.circle("Hub", middle, middle, 20 * unit, CLAY)
    spokes = [
        hand.box("Spoke", middle, middle, 13 * unit, 196 * unit, CLAY, 6.5 * unit, 45 * turn)
        for turn in range(4)
    ]
    wheel = hand.combine("join", "Wheel", rim, hub, *spokes)
    eye = hand.circle("Eye", middle, middle, 8 * unit)
    whole = hand.combine("cut", "Wheel with eye", wheel, eye)
    depth = {"angle_deg": 50, "length": 22 * unit, "bevel": 2.5 * unit}
    hand.do("paint", ids=[whole], depth=depth)


def _crescent(hand: Hand) -> None:
    hand.plate("Crescent")
    moon = hand.circle("Moon", 120, 128, 92, TIDE)
    night = hand.circle("Night", 168, 104, 80)
    crescent = hand.combine("cut", "Crescent", moon, night)
    stops = [
        {"at": 0, "colour": TIDE},
        {"at": 0.5, "colour": MUSTARD},
        {"at": 1, "colour": TIDE},
    ]
    round_middle = {"a": 0.5, "d": 0.5, "e": 0.5, "f": 0.5}
    hand.do("paint", ids=[crescent], fill={"shape": "conic", "stops": stops, "place": round_middle})
