"""Geometry and links that several families share."""
