"""Pictures and loops of the book's drills, drawn by the made-up golfer with its props."""
