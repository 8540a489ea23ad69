"""What a thing that is bent comes to look like, and what that costs it."""
