"""What to buy: pieces from the geometry, the stock they come out of, and the list of packs with prices."""
