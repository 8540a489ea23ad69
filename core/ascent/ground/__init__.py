"""The garden in plan: where things lie, what is in the way, what is in the shade."""
