"""What would help, what to start with, and what each measure comes to."""
