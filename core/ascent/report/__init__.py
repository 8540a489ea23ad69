"""Reports: typed, in words and in the reader's units."""
