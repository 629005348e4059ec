"""The Django project: who, what and when. Thin; the measuring is done in the rooms below."""
