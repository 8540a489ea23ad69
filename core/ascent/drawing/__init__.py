"""Drawings: geometry projected to marks in metres. Whoever shows them only scales and inks."""
