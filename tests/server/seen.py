"""Clips as if a worker with perfect eyes had looked at them."""

import numpy as np

from tests.swing.test_proposals import landmarks_of, outline_of
from tests.swings import truth
from tropometer.server.clips.models import Clip, Proposals, SeenBody
from tropometer.server.clips.proposing import propose


def put_proposals(clip: Clip, name: str) -> None:
    """The true pegs and body of a demo clip, as proposals."""
    known = truth(name)
    pegs = [{"name": at, "frame": f, "confidence": 0.9} for at, f in known["checkpoints"].items()]
    found = propose(clip, 0, np.zeros((0, 33, 3))) | {"pegs": pegs, "is_swing": True}
    landmarks = landmarks_of(known).points.astype(np.float32).tobytes()
    outline = outline_of(known).astype(np.float32).tobytes()
    for network in ("fast", "close"):
        SeenBody.objects.create(
            clip=clip, network=network, first_frame=0, landmarks=landmarks, outline=outline
        )
    Proposals.objects.create(clip=clip, found=found)
