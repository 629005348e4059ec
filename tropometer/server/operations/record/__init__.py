"""A student's whole record in one zip: to be read by people, and to be brought back on another machine."""
