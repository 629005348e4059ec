"""What comes from devices while a student hits balls."""
