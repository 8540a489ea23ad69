"""Texts by key, and quantities as people write them."""
