"""Where everything stands, and the chain of links from fruit to ground."""
