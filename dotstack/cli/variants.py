"""The variants of a mark that measures make: typed, or the rows of a table."""

import argparse
import csv
from dataclasses import dataclass
from pathlib import Path

from dotstack.core.drawing import Drawing, Evaluator
from dotstack.core.drawing.exporting import file_name
from dotstack.core.drawing.measures import varied
from dotstack.core.errors import CommandError, FormatError

# The column of a table that says what each variant is called.
_NAME = "name"


@dataclass(frozen=True)
class Variant:
    """A drawing with other measures, and the folder for what comes of it."""

    drawing: Drawing
    folder: Path


def add_to(parser: argparse.ArgumentParser) -> None:
    """Adds how variants are told to a command's parser."""
    parser.add_argument(
        "--set",
        type=_setting,
        action="append",
        default=[],
        metavar="gap=4",
        help="another value of a measure of the drawing; may be given several times",
    )
    parser.add_argument(
        "--table",
        type=Path,
        help="a CSV file, each row of which is a variant: measures by their names, and "
        f"perhaps a column '{_NAME}'; each goes into a folder of its own",
    )


def _setting(text: str) -> tuple[str, str]:
    name, equals, value = text.partition("=")
    if not equals or not name.strip() or not value.strip():
        raise argparse.ArgumentTypeError(f"{text!r}: a measure and its value are wanted, as gap=4")
    return name.strip(), value.strip()


def variants(drawing: Drawing, options: argparse.Namespace, evaluator: Evaluator) -> list[Variant]:
    """The variants that are asked for, all made before anything is written.

    Raises CommandError or FormatError, which names the row.
    """
    settled = varied(drawing, dict(options.set), evaluator)
    if options.table is None:
        return [Variant(settled, options.output)]
    found: list[Variant] = []
    for line, row in _rows(options.table):
        name = file_name(row.pop(_NAME, "") or str(len(found) + 1))
        try:
            made = varied(settled, {key: text for key, text in row.items() if text}, evaluator)
        except CommandError as error:
            raise CommandError(f"Row {line} of {options.table.name}: {error}") from error
        if any(variant.folder.name == name for variant in found):
            raise FormatError(options.table.name, f"two variants are called {name}")
        found.append(Variant(made, options.output / name))
    return found


def _rows(path: Path) -> list[tuple[int, dict[str, str]]]:
    """The rows of a table by the names of its columns, and the line that each ends at."""
    try:
        with path.open(newline="", encoding="utf-8-sig") as file:
            reader = csv.reader(file, strict=True)
            found = [(reader.line_num, [cell.strip() for cell in row]) for row in reader]
    except (UnicodeDecodeError, csv.Error) as error:
        raise FormatError(path.name, f"it is no table in CSV, as UTF-8 ({error})") from error
    head, *rows = [row for row in found if any(row[1])] or [(0, [""])]
    names = head[1]
    if not rows or not all(names) or len(set(names)) < len(names):
        raise FormatError(
            path.name,
            "a first row is wanted with the name of a measure over each column, each once, "
            "and a row for each variant",
        )
    for line, row in rows:
        if len(row) != len(names):
            raise FormatError(
                f"row {line} of {path.name}",
                f"it has {len(row)} cells, and {len(names)} are wanted",
            )
    return [(line, dict(zip(names, row, strict=True))) for line, row in rows]
