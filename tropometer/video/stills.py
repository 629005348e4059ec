"""One frame of a proxy, by number, as a picture file."""

from __future__ import annotations

from pathlib import Path

import av
import cv2
import numpy as np

from tropometer.video.proxy import PROXY_FPS


def still_jpeg(proxy: Path, number: int, height: int | None = None, quality: int = 88) -> bytes:
    """Frame `number` as JPEG, at most `height` pixels high; IndexError when the proxy has no such frame."""
    with av.open(str(proxy)) as container:
        stream = container.streams.video[0]
        if stream.time_base is None:
            raise IndexError(number)
        per_frame = 1 / (PROXY_FPS * stream.time_base)
        container.seek(round(number * per_frame), stream=stream)
        for frame in container.decode(stream):
            if frame.pts is not None and round(frame.pts / per_frame) == number:
                picture = np.ascontiguousarray(frame.to_ndarray(format="bgr24"), dtype=np.uint8)
                if height is not None and height < frame.height:
                    size = (max(1, round(frame.width * height / frame.height)), height)
                    picture = np.asarray(cv2.resize(picture, size, interpolation=cv2.INTER_AREA), np.uint8)
                return cv2.imencode(".jpg", picture, [cv2.IMWRITE_JPEG_QUALITY, quality])[1].tobytes()
    raise IndexError(number)
