"""What the log of a garden teaches: from what happened to how much things bear, hold and take here."""
