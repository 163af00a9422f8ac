"""``dotstack refine``: outlines refined, for scripts."""

import argparse
import sys
from pathlib import Path

from dotstack.cli.marks import (
    NOTHING_LEFT,
    colour,
    operand,
    takes_output,
    text_of,
    view_box,
    written,
)
from dotstack.cli.refusing import refused
from dotstack.core.combine import union
from dotstack.core.errors import CoreError
from dotstack.core.formats import Painted, Part, Picture, read_svg
from dotstack.core.geometry import Outline
from dotstack.core.refine import CornerShape, Join, Treatment, corners, offset, simplified, treated


def furnish(_: str, command: argparse.ArgumentParser) -> None:
    """Gives the command its arguments, and what it does."""
    command.description = (
        "Takes nodes away from each top-level shape of an SVG file, grows or shrinks it, "
        "then rounds all its corners. Exit codes as of combine."
    )
    command.add_argument(
        "--simplify", type=float, default=0.0, metavar="BOUND",
        help="as few nodes as let outlines stray so far at most",
    )  # fmt: skip
    command.add_argument("--offset", type=float, default=0.0, help="distance, below 0 to shrink")
    command.add_argument("--join", choices=[join.value for join in Join], default="round")
    command.add_argument("--round", type=float, default=0.0, help="radius of all corners")
    command.add_argument("file", type=Path)
    takes_output(command)
    command.set_defaults(run=_refine)


def _refine(options: argparse.Namespace) -> int:
    try:
        file = read_svg(text_of(options.file))
        made = [_refined(operand(shape), options) for shape in file.shapes]
    except (CoreError, OSError) as error:
        return refused(options.file, error)
    left = [(shape, one) for shape, one in zip(file.shapes, made, strict=True) if not one.is_empty]
    if not left:
        print(f"{options.file}: it leaves nothing.", file=sys.stderr)
        return NOTHING_LEFT
    parts = tuple(Part(shape.name, (Painted(one, colour(shape.fill)),)) for shape, one in left)
    box = view_box(file, [one for _, one in left])
    return written(Picture(options.file.stem, box, parts), options.output)


def _refined(outline: Outline, options: argparse.Namespace) -> Outline:
    made = union([outline])
    if options.simplify:
        made = union([simplified(made, options.simplify).outline])
    if options.offset:
        made = offset(made, options.offset, Join(options.join))
    wanted = [Treatment(corner, CornerShape.ROUND, options.round) for corner in corners(made)]
    return treated(made, wanted)[0]
