"""Types, drags and sizes words, and measures what each look costs.

``python -m bench.lettering``. A look is what the desk asks for while one types or drags: a command
applied, the figures that it changes, and where the letters stand. Times are told as ratios to the
look that moves one circle, in the same run; ``--milliseconds`` tells those as well.
"""

import argparse
import time
from collections.abc import Callable
from statistics import median

from dotstack.core.drawing import (
    Drawing,
    Evaluator,
    Node,
    Plate,
    apply,
    command_adapter,
    difference,
)
from dotstack.core.drawing.kinds import EllipseNode, RectangleNode, TextNode
from dotstack.core.drawing.kinds.text import FontChoice
from dotstack.core.drawing.letter_map import letter_map
from dotstack.core.drawing.scene import changed_figures, require_shown
from dotstack.core.drawing.surroundings import Surroundings
from dotstack.core.letters import Font
from dotstack.core.values import Placement
from dotstack.fonts import shipped

_TRIES = 15
_WORD = "Slack tide boat hire"
_DISC = EllipseNode(id="disc", name="Disc", rx=20, ry=20)
_LONG = "The tide turns at slack water and boats go out AVTo. "


def _font(family: str) -> Font:
    return next(each for each in shipped().values() if each.family == family)


def _text(font: Font, words: str, size: float = 24.0) -> TextNode:
    choice = FontChoice(digest=font.digest, family=font.family, style=font.styles[0].name)
    there = Placement(e=20, f=100)
    return TextNode(id="text", name="Sign", words=words, font=choice, size=size, transform=there)


def _look(drawing: Drawing, evaluator: Evaluator, **command: object) -> Drawing:
    after = apply(drawing, command_adapter.validate_python(command), evaluator)
    delta = difference(drawing, after)
    require_shown(delta, evaluator)
    changed_figures(delta, evaluator)
    if command["kind"] in {"set-words", "space-letters"}:
        letter_map(after, "text", evaluator, with_gaps=command["kind"] == "space-letters")
    return after


def _seconds(look: Callable[[int], object], tries: int = _TRIES) -> float:
    """What a look takes, after two that are not counted."""
    times = []
    for number in range(tries + 2):
        begin = time.perf_counter()
        look(number)
        times.append(time.perf_counter() - begin)
    return median(times[2:])


def _drawing(*nodes: Node) -> Drawing:
    plate = Plate(id="plate", name="Plate", width=400, height=400, nodes=nodes)
    return Drawing(name="Slack tide boat hire", plates=(plate,))


def _panel(text: TextNode, evaluator: Evaluator) -> Drawing:
    box = RectangleNode(id="box", name="Box", width=340, height=40, radius=8,
                        transform=Placement(e=180, f=110))  # fmt: skip
    return _look(
        _drawing(box, _DISC, text), evaluator,
        kind="combine", ids=["box", "disc", "text"], id="all", name="All", outcome="join",
    )  # fmt: skip


def word_in_panel() -> Drawing:
    """A word of 20 letters in a variable sans, joined with a panel."""
    return _panel(_text(_font("Inter Variable"), _WORD), Evaluator(Surroundings(shipped().get)))


def main() -> None:
    """Prints a row for each thing that is done to words."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--milliseconds", action="store_true", help="tell times too")
    tell = parser.parse_args().milliseconds
    evaluator = Evaluator(Surroundings(shipped().get))
    alone = _drawing(_DISC)

    def move(drawing: Drawing, key: str) -> Callable[[int], object]:
        return lambda i: _look(
            drawing, evaluator, kind="transform", ids=[key], by={"e": 0.1 * (i + 1)}
        )

    base = _seconds(move(alone, "disc"))
    print("| font | what is done | looks of a moved circle |\n|---|---|---|")
    for family in ("Inter Variable", "EB Garamond", "Rubik"):
        for word, seconds in _rows(_font(family), evaluator, move):
            shown = f" ({1000 * seconds:.1f} ms)" if tell else ""
            print(f"| {family} | {word} | {seconds / base:.1f}{shown} |", flush=True)


def _rows(
    font: Font,
    evaluator: Evaluator,
    move: Callable[[Drawing, str], Callable[[int], object]],
) -> list[tuple[str, float]]:
    text = _text(font, _WORD)
    one = _drawing(text)

    def typed(drawing: Drawing, words: str) -> Callable[[int], object]:
        letters = "etaoinshrdlucmfwy"
        return lambda i: _look(
            drawing, evaluator, kind="set-words", id="text", words=words + letters[i % 17]
        )

    panel = _panel(text, evaluator)
    long = (_LONG * 40)[:2000].strip()
    lines = "\n".join(long[i : i + 50] for i in range(0, 2000, 50))
    many = _drawing(_text(font, lines, 6.0))
    return [
        ("a letter more, 20 letters", _seconds(typed(one, _WORD))),
        (
            "a gap dragged, 20 letters",
            _seconds(
                lambda i: _look(one, evaluator, kind="space-letters", id="text", before=4, by=i + 1)
            ),
        ),
        (
            "sized by a bracket, 20 letters",
            _seconds(
                lambda i: _look(
                    one, evaluator, kind="set-letters", ids=["text"], size=24 + 0.1 * (i + 1)
                )
            ),
        ),
        ("moved within the panel that it is joined with", _seconds(move(panel, "text"))),
        ("the panel moved as a whole", _seconds(move(panel, "all"))),
        ("a letter more, 2,000 letters", _seconds(typed(many, lines), 3)),
        ("moved, 2,000 letters", _seconds(move(many, "text"), 3)),
    ]


if __name__ == "__main__":
    main()
