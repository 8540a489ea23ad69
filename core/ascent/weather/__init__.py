"""What days a garden has: its climate, its frosts, what was seen of this year, and the heat of its days."""
