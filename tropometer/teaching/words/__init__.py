"""Sentences made from findings, for teachers and for students."""
