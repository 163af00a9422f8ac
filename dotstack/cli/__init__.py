"""What can a script do? ``dotstack serve | demo | combine | regions | openapi``."""

import argparse

from dotstack.cli import marks, serving

__all__ = ["main"]


def main(arguments: list[str] | None = None) -> int:
    """Runs a command; answers the exit code."""
    parser = argparse.ArgumentParser(prog="dotstack", description="Construct precise marks.")
    commands = parser.add_subparsers(dest="command", required=True)
    serving.add_to(commands)
    marks.add_to(commands)
    options = parser.parse_args(arguments)
    code: int = options.run(options)
    return code
