"""Judging: from readings to findings, their causes, and what to do. Pure; what it knows is data (`book/`)."""
