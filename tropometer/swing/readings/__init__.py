"""What is measured: readings of marks, of times and of a pressure plate, given or refused with a reason."""
