"""What fits and what does not, apart from strength."""
