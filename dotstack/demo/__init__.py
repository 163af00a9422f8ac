"""What does a newcomer see first? The demo drawings, built through a person's commands."""

from dotstack.demo.fill import fill

__all__ = ["fill"]
