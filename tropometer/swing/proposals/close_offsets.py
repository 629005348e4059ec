from tropometer.swing.names import View

CLOSE_OFFSETS: dict[tuple[View, str], tuple[float, float, tuple[tuple[float, float], ...]]] = {}
