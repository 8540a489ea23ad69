"""Loads as arrays over cases: axes (soil state, week, wind)."""
