"""The lines of the trade, drawn into the picture and seen from above."""
