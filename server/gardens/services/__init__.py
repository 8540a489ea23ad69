"""What the API does, one module a subject; the server comes into the core through here."""
