"""What a clip seems to show, before anybody has said so: proposals with a confidence, never measurements."""
