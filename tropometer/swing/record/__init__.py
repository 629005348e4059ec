"""Plain data: clips with their marks and pegs, what is known of their cameras, what a plate felt."""
