"""What a structure holds: limit gusts, margins, chance, and how their numbers are said."""
