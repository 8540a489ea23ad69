"""How a report is told: typed for the reader, in words and in the reader's units."""
