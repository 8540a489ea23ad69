"""Limits that every app shares."""
