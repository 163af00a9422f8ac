"""Who computes? Processes of their own: what is heavy can be ended, and keeps nobody waiting."""

from dotstack.workers.crew import Crew
from dotstack.workers.handing import hand_over
from dotstack.workers.worker import Setup

__all__ = ["Crew", "Setup", "hand_over"]
