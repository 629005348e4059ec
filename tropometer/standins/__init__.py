"""Small simulated outside things, for the demo and for tests."""
