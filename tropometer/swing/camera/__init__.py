"""Where the camera stood, solved from floor points, and what follows for every length in its picture."""
