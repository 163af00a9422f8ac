"""``dotstack export`` and ``dotstack kit``: marks from files to files, for scripts."""

import argparse
import sys
from collections.abc import Callable, Iterable, Iterator
from functools import partial
from pathlib import Path

from pydantic import ValidationError

from dotstack.cli.refusing import REFUSED, refused
from dotstack.cli.variants import add_to as add_variants_to
from dotstack.cli.variants import variants
from dotstack.core.drawing import Evaluator
from dotstack.core.drawing.drawing_file import read_drawing
from dotstack.core.drawing.exporting import export, export_adapter, file_name
from dotstack.core.drawing.kit import KitCollection, read_kit, write_kit
from dotstack.core.drawing.pictures import node_picture, plate_picture
from dotstack.core.drawing.surroundings import Surroundings
from dotstack.core.errors import CommandError, CoreError
from dotstack.core.formats import Picture
from dotstack.core.letters import Font
from dotstack.fonts import shipped
from dotstack.whole_file import write_whole

_FORMATS = ("svg", "sprite", "png", "ico", "site", "pdf", "dxf", "font")
_SIZED = ("png", "ico")
_GROUNDED = ("svg", "png", "ico", "site", "pdf")


def furnish(name: str, command: argparse.ArgumentParser) -> None:
    """Gives a command its arguments, and what it does."""
    if name == "export":
        _furnish_export(command)
        return
    actions = command.add_subparsers(dest="action", required=True)
    listed = actions.add_parser("list", help="what a kit, or a drawing that carries some, holds")
    listed.add_argument("file", type=Path)
    listed.set_defaults(run=_list)
    taken = actions.add_parser("take", help="save the collections that a drawing carries as kits")
    taken.add_argument("file", type=Path)
    taken.add_argument("-o", "--output", type=Path, default=Path(), help="a folder")
    taken.set_defaults(run=_take)


def _furnish_export(command: argparse.ArgumentParser) -> None:
    command.description = (
        "Exports all plates of a drawing file, or all assets of a kit. Exit codes: 0 done, "
        "1 a file cannot be read or written, 2 wrong usage."
    )
    command.add_argument("file", type=Path, help="a .dotdrawing or a .dotkit")
    command.add_argument("--format", type=_formats, default=["svg"], metavar=",".join(_FORMATS))
    command.add_argument(
        "--sizes", type=_sizes, metavar="16,32,512", help="of PNG and ICO, in pixels"
    )
    command.add_argument("--ground", action="store_true", help="with the plates' backgrounds")
    command.add_argument("--precision", type=int, help="decimals of SVG")
    command.add_argument("--once", action="store_true", help="equal paths of SVG once, by <use>")
    command.add_argument("--width", type=float, help="of each mark in DXF, in millimetres")
    command.add_argument("--family", help="the name of the font")
    command.add_argument("-o", "--output", type=Path, default=Path(), help="a folder")
    add_variants_to(command)
    command.set_defaults(run=_export)


def _formats(text: str) -> list[str]:
    names = [name.strip() for name in text.split(",") if name.strip()]
    wrong = [name for name in names if name not in _FORMATS]
    if wrong or not names:
        raise argparse.ArgumentTypeError(f"{text!r}: choose from {', '.join(_FORMATS)}")
    return names


def _sizes(text: str) -> list[int]:
    words = [word.strip() for word in text.split(",")]
    if not all(word.isdecimal() and int(word) > 0 for word in words):
        raise argparse.ArgumentTypeError(f"{text!r}: whole numbers of pixels are wanted")
    return [int(word) for word in words]


def _collections(path: Path) -> list[KitCollection]:
    data = path.read_bytes()
    if path.suffix == ".dotdrawing":
        return list(read_drawing(data).collections)
    return [read_kit(data)]


def _pictures(options: argparse.Namespace) -> Iterator[tuple[Path, list[Picture]]]:
    """What is to be exported, and the folders that it goes to."""
    path: Path = options.file
    if path.suffix == ".dotdrawing":
        read = read_drawing(path.read_bytes())
        evaluator = _evaluator(read.fonts)
        for variant in variants(read.drawing, options, evaluator):
            plates = variant.drawing.plates
            yield variant.folder, [plate_picture(plate, evaluator) for plate in plates]
        return
    if options.set or options.table:
        raise CommandError("A kit has no measures; they are the drawing's.")
    evaluator = _evaluator(())
    yield (
        options.output,
        [
            node_picture(asset.name, asset.node, evaluator)
            for collection in _collections(path)
            for section in collection.sections
            for asset in section.assets
        ],
    )


def _evaluator(carried: Iterable[Font]) -> Evaluator:
    """An evaluator with the fonts that ship, and those that a file carries."""
    fonts = {**{font.digest: font for font in carried}, **shipped()}
    return Evaluator(Surroundings(fonts.get))


def _export(options: argparse.Namespace) -> int:
    return _careful(options.file, lambda: _export_all(options))


def _export_all(options: argparse.Namespace) -> None:
    for folder, pictures in _pictures(options):
        _export_into(folder, pictures, options)


def _export_into(folder: Path, pictures: list[Picture], options: argparse.Namespace) -> None:
    for name in options.format:
        given = {
            "sizes": options.sizes if name in _SIZED else None,
            "ground": options.ground or None if name in _GROUNDED else None,
            "precision": options.precision if name in ("svg", "sprite") else None,
            "once": options.once or None if name == "svg" else None,
            "width": options.width if name == "dxf" else None,
            "family": options.family if name == "font" else None,
        }
        known = {key: value for key, value in given.items() if value is not None}
        choice = export_adapter.validate_python({"format": name, **known})
        made = export(pictures, choice, partial(_progress, name))
        for note in made.notes:
            print(note, file=sys.stderr)
        for key, data in made.files.items():
            _save(folder / key, data)


def _progress(name: str, done: int, of: int) -> None:
    if sys.stderr.isatty() and of > 1:
        print(f"\r{name}: {done} of {of}", end="\n" if done == of else "", file=sys.stderr)


def _save(path: Path, data: bytes) -> None:
    path.parent.mkdir(parents=True, exist_ok=True)
    write_whole(path, data)
    print(path)


def _list(options: argparse.Namespace) -> int:
    def show() -> None:
        for collection in _collections(options.file):
            print(f"{collection.name}: {collection.count} assets")
            for section in collection.sections:
                print(f"  {section.name}")
                for asset in section.assets:
                    print("    " + " ".join([asset.name, *(f"#{tag}" for tag in asset.tags)]))

    return _careful(options.file, show)


def _take(options: argparse.Namespace) -> int:
    def take() -> None:
        for collection in _collections(options.file):
            path = options.output / f"{file_name(collection.name)}.dotkit"
            _save(path, write_kit(collection, _evaluator(())))

    return _careful(options.file, take)


def _careful(path: Path, act: Callable[[], None]) -> int:
    try:
        act()
    except ValidationError as error:
        faults = error.errors(include_url=False)
        said = "; ".join(f"{fault['loc'][-1]}: {fault['msg']}" for fault in faults)
        print(f"{path}: {said}", file=sys.stderr)
        return REFUSED
    except (CoreError, OSError) as error:
        return refused(getattr(error, "filename", None) or path, error)
    return 0
