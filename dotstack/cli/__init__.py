"""What can a script do?

``dotstack`` and a command; ``dotstack --help`` lists them.
"""

import argparse
import sys
from importlib import import_module

__all__ = ["main"]

# Each command's module, which is imported on use: nobody waits for what is not asked for.
_COMMANDS = {
    "serve": ("serving", "serve the application"),
    "demo": ("serving", "the same, with demo drawings in an empty database"),
    "shared-shelf": ("serving", "serve a shared shelf for a studio"),
    "phrase": ("serving", "set the access phrase that a server asks for"),
    "openapi": ("describing", "print the API's description"),
    "schema": ("describing", "print the JSON Schema of a kind of file"),
    "ranges": ("describing", "print the ranges of primitives' parameters"),
    "export": ("files", "export the plates of a drawing file, or the assets of a kit"),
    "kit": ("files", "look into kits, and make them of drawing files"),
    "combine": ("marks", "combine the top-level shapes of an SVG file"),
    "refine": (
        "refining",
        "simplify, grow or shrink the shapes of an SVG file, and round their corners",
    ),
    "regions": ("marks", "list the regions of an SVG file's shapes"),
    "backup": ("upkeep", "copy the database, while it is in use, into one file"),
    "restore": ("upkeep", "put a backup in the database's place; stop the server first"),
    "doctor": (
        "upkeep",
        "look whether all drawings open, and say what to do where one does not",
    ),
}
# What workers are copies of is begun before such a command reads the same.
_WITH_WORKERS = frozenset({"serve", "demo"})


def main(arguments: list[str] | None = None) -> int:
    """Runs a command; answers the exit code."""
    words = sys.argv[1:] if arguments is None else arguments
    parser = argparse.ArgumentParser(prog="dotstack", description="Construct precise marks.")
    commands = parser.add_subparsers(dest="command", required=True)
    for name, (module, purpose) in _COMMANDS.items():
        command = commands.add_parser(name, help=purpose)
        if words[:1] == [name]:
            if name in _WITH_WORKERS:
                import_module("dotstack.ancestor").begin()
            import_module(f"dotstack.cli.{module}").furnish(name, command)
    options = parser.parse_args(words)
    code: int = options.run(options)
    return code
