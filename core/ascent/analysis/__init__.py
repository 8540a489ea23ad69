"""What a structure does where it stands: loads, load path, limit gusts, reliability, sensitivity."""
