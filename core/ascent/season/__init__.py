"""The season: when each crop can be planted, what is due in which week and why, what it brings in."""
