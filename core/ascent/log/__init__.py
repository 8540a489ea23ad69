"""The log: what is read from a line, what it says of a thing as it is now, what is learnt from it."""
