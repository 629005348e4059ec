"""What can be wrong with what the bench is asked to do."""


class BadEdit(ValueError):
    """An edit that does not fit its clip; names the field."""
