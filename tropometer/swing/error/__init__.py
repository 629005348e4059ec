"""Values that carry their error, and where it comes from."""
