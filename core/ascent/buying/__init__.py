"""What to buy."""
