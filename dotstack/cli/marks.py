"""``dotstack combine`` and ``dotstack regions``: the engine for scripts."""

import argparse
import json
import sys
from pathlib import Path

from dotstack.cli.refusing import refused
from dotstack.core.arrangement import Arrangement
from dotstack.core.combine import Outcome, Paint, outcomes, union
from dotstack.core.errors import CoreError
from dotstack.core.formats import (
    Painted,
    Part,
    Pen,
    Picture,
    SvgFile,
    SvgShape,
    read_svg,
    write_svg,
)
from dotstack.core.geometry import Outline
from dotstack.core.paint import Stroke

NOTHING_LEFT = 3
_PRECISION = 6


def furnish(name: str, command: argparse.ArgumentParser) -> None:
    """Gives a command its arguments, and what it does."""
    if name == "combine":
        command.description = (
            "Combines the top-level shapes of an SVG file, the first one lowest. Exit codes: "
            "0 done, 1 the file cannot be read or combined, 2 wrong usage, 3 nothing left."
        )
        command.add_argument("outcome", choices=[outcome.value for outcome in Outcome])
        takes_output(command)
        command.set_defaults(run=_combine)
    else:
        command.add_argument("--json", action="store_true", help="as JSON, with outlines")
        command.set_defaults(run=_regions)
    command.add_argument("file", type=Path)


def takes_output(command: argparse.ArgumentParser) -> None:
    """Lets it be said where the result goes."""
    command.add_argument("-o", "--output", type=Path, help="where to write; else it is printed")


def _combine(options: argparse.Namespace) -> int:
    try:
        file = read_svg(text_of(options.file))
        operands = [operand(shape) for shape in file.shapes]
        fills = [shape.fill for shape in file.shapes]
        (result,) = outcomes(operands, list(map(Paint, fills)), [Outcome(options.outcome)])
    except (CoreError, OSError) as error:
        return refused(options.file, error)
    for idle in result.idle:
        print(f"{file.shapes[idle].name} takes no part: it has no area.", file=sys.stderr)
    if not result.parts:
        print(f"{options.file}: {options.outcome} leaves nothing.", file=sys.stderr)
        return NOTHING_LEFT
    painted = tuple(
        Painted(part.outline, None, Pen(colour(fills[part.paint]), Stroke(width=1.0)))
        if part.is_line
        else Painted(part.outline, colour(fills[part.paint]))
        for part in result.parts
    )
    parts = (Part(options.outcome, painted),)
    return written(Picture(options.outcome, view_box(file, operands), parts), options.output)


def written(picture: Picture, output: Path | None) -> int:
    """Writes a picture as SVG; answers the exit code."""
    document = write_svg(picture)
    if output is None:
        print(document, end="")
        return 0
    try:
        output.write_text(document, encoding="utf-8")
    except OSError as error:
        return refused(output, error)
    return 0


def _regions(options: argparse.Namespace) -> int:
    try:
        file = read_svg(text_of(options.file))
        found = Arrangement.of([operand(shape) for shape in file.shapes]).regions
    except (CoreError, OSError) as error:
        return refused(options.file, error)
    names = [shape.name for shape in file.shapes]
    rows = sorted(
        (
            (
                len(region.cover),
                [names[place] for place in sorted(region.cover)],
                region.area,
                region,
            )
            for region in found
        ),
        key=lambda row: row[:3],
    )
    if options.json:
        regions = [
            {
                "cover": cover,
                "area": area,
                "dot": region.dot,
                "path": region.outline.to_path_data(_PRECISION),
            }
            for _, cover, area, region in rows
        ]
        print(json.dumps({"shapes": names, "regions": regions}, indent=1))
        return 0
    print(f"{'area':>14}  {'dot':>22}  covered by")
    for _, cover, area, region in rows:
        x, y = region.dot
        print(f"{area:14.4f}  {x:10.3f} {y:11.3f}  {', '.join(cover) or 'nothing'}")
    return 0


def text_of(path: Path) -> str:
    """A file's text; raises OSError."""
    try:
        return path.read_text(encoding="utf-8")
    except UnicodeDecodeError as error:
        raise OSError(f"it is not UTF-8 at byte {error.start}") from error


def operand(shape: SvgShape) -> Outline:
    """A shape's outline; a group's shapes are joined."""
    return shape.outlines[0] if len(shape.outlines) == 1 else union(shape.outlines)


def colour(fill: str) -> str:
    """What a shape is painted in, black if nothing."""
    return "#000000" if fill == "none" else fill


def view_box(file: SvgFile, operands: list[Outline]) -> tuple[float, float, float, float]:
    """The view box of a result: the file's, or one round the outlines."""
    if file.view_box:
        return file.view_box
    boxes = [operand.bounds for operand in operands if not operand.is_empty]
    x0, y0 = min(box[0] for box in boxes), min(box[1] for box in boxes)
    x1, y1 = max(box[2] for box in boxes), max(box[3] for box in boxes)
    return x0, y0, x1 - x0, y1 - y0
