"""The drawing *Slack tide boat hire*: words as shapes."""

from dotstack.demo.hand import CLAY, INK, MOSS, MUSTARD, TIDE, Hand

_CARD = "#FBF7EF"
_HEAVY, _WIDE, _SERIF = ("Rubik", "Black"), ("Quicksand", "Bold"), ("EB Garamond", "Bold")
_MIDDLE = {"alignment": "middle"}


def draw(hand: Hand) -> None:
    """Draws all plates."""
    _board(hand)
    _round_sign(hand)
    _signet(hand)


def _board(hand: Hand) -> None:
    hand.plate("Board", 432, 240)
    above = hand.box("Upper board", 214, 98, 332, 104, TIDE)
    below = hand.box("Lower board", 214, 168, 224, 64, TIDE)
    ends = [hand.circle("Rope end", x, 98, 34, TIDE) for x in (48, 380)]
    panel = hand.combine("join", "Panel", above, below, *ends)
    hand.do("refine", ids=[panel], refinement={"kind": "corners", "every": "all", "size": 14})
    hand.do("paint", ids=[panel], line={"colour": MUSTARD, "width": 5})
    shadow = hand.moved_copy(panel, 5, 7)
    hand.do("rename", id=shadow, name="Shadow")
    hand.do("paint", ids=[shadow], fill=INK, line={"colour": INK, "width": 5}, opacity=0.3)
    hand.do("arrange", ids=[shadow], to="bottom")
    hand.words("Slack tide", "Slack tide", 214, 122, _HEAVY, 48, _CARD, **_MIDDLE)
    hand.words("Boat hire", "BOAT HIRE", 214, 183, _WIDE, 19, MUSTARD, tracking=180, **_MIDDLE)


def _round_sign(hand: Hand) -> None:
    hand.plate("Round sign")
    hand.circle("Disc", 128, 128, 116, MOSS)
    hand.ring("Rope", 128, 128, 110, 0.96, _CARD)
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
