"""Dot Stack: construct precise vector marks, combine them, keep them."""
