"""What the bench tells those above it."""

from uuid import UUID

from django.dispatch import Signal

from tropometer.server.clips.services import ready_clip

# Something that readings hang on was put on a swing, taken off it or said of it: `swing_id`.
swing_changed = Signal()


def clip_changed(clip_id: UUID) -> None:
    """Tell it of the swing of a clip, if the clip is still there."""
    clip = ready_clip(clip_id)
    if clip is not None:
        swing_changed.send(None, swing_id=clip.swing_id)
