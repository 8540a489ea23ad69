"""From what is laid out to a thing in the ground: steps, stake-out, what to look for first, as built."""
