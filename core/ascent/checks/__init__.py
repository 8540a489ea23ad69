"""Ways a link can fail: demands over cases against an item's capacity. Factors live here and in tables."""
