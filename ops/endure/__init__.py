"""The run that kills: scripted people work while processes die at random, then all is counted."""
