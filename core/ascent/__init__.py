"""Ascent's core: from a planned trellis to what carries it, when it fails and what to buy."""

__version__ = "0.9.0"
