"""What can a script do?

``dotstack serve | demo | shared-shelf | phrase | backup | restore | doctor | export | kit |
combine | regions | openapi | schema | ranges``
"""

import argparse

from dotstack.cli import describing, files, marks, serving, upkeep

__all__ = ["main"]


def main(arguments: list[str] | None = None) -> int:
    """Runs a command; answers the exit code."""
    parser = argparse.ArgumentParser(prog="dotstack", description="Construct precise marks.")
    commands = parser.add_subparsers(dest="command", required=True)
    serving.add_to(commands)
    describing.add_to(commands)
    files.add_to(commands)
    marks.add_to(commands)
    upkeep.add_to(commands)
    options = parser.parse_args(arguments)
    code: int = options.run(options)
    return code
