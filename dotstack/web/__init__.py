"""How does a browser reach the drawings? HTTP in, JSON out, no rules of its own."""

from dotstack.web.app import create_app

__all__ = ["create_app"]
