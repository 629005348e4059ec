"""A voice: read from whatever a browser recorded, cut and joined, evened out in loudness, written as AAC."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from pathlib import Path

import av
import numpy as np
import numpy.typing as npt
from av.filter import Graph

from tropometer.video.opening import NotAClip, judging

Samples = npt.NDArray[np.float32]

RATE = 48_000
FORMATS = "matroska,webm,mov,mp4,m4a,ogg,wav"  # what browsers record
LONGEST_S = 3600
BITS_A_SECOND = 64_000
# ITU-R BS.1770-4 loudness, EBU Tech 3341: −16 LUFS is what speech on phones and computers is evened out to.
LOUDNESS_LUFS, RANGE_LU, PEAK_DBTP = -16, 7, -2.0
SEAM_S = 0.004  # over which two stretches go into each other, so that nothing clicks
QUIET_OVER_FLOOR, QUIET_OF_SPEECH = (
    2.0,
    0.08,
)  # a window is silent below both: of the floor, and of loud speech
WINDOW_S = 0.02
SILENCE_S = 0.6  # from which a pause counts as one
BLOCK_S = 1.0


@dataclass(frozen=True)
class Stretch:
    """Part of a recorded voice, seconds from its start; `to_s` None: to its end."""

    path: Path
    from_s: float
    to_s: float | None


@dataclass(frozen=True)
class Voice:
    """How long a voice is, and where in it nobody speaks, seconds."""

    length_s: float
    silences: list[tuple[float, float]]


def read_voice(path: Path) -> Iterator[Samples]:
    """Mono samples, 48 000 a second, block by block. One that breaks off gives what there is of it.

    NotAClip where there is no voice in the file, or more than an hour.
    """
    limits = {"format_whitelist": FORMATS, "protocol_whitelist": "file", "enable_drefs": "0"}
    resampler = av.AudioResampler(format="flt", layout="mono", rate=RATE)
    heard = 0
    with judging("This is no voice that can be played."), av.open(str(path), options=limits) as container:
        if not container.streams.audio:
            raise NotAClip("There is no voice in this file.")
        frames = container.decode(audio=0)
        while True:
            try:
                frame = next(frames, None)
            except (av.error.InvalidDataError, EOFError):
                if not heard:
                    raise
                frame = None  # it breaks off here
            for each in resampler.resample(frame):
                samples = np.ascontiguousarray(each.to_ndarray()[0], np.float32)
                heard += len(samples)
                if heard > LONGEST_S * RATE:
                    raise NotAClip("This voice is longer than an hour.")
                yield samples
            if frame is None:
                break
    if not heard:
        raise NotAClip("There is no voice in this file.")


def make_take(source: Path, target: Path) -> Voice:
    """Write a recorded voice as AAC in MP4 with constant timestamps, as loud as it was."""
    levels: list[Samples] = []
    length = 0

    def listened() -> Iterator[Samples]:
        nonlocal length
        rest = np.zeros(0, np.float32)
        window = round(WINDOW_S * RATE)
        for block in read_voice(source):
            length += len(block)
            rest = np.concatenate([rest, block])
            whole = len(rest) // window * window
            levels.append(np.sqrt(np.mean(rest[:whole].reshape(-1, window) ** 2, axis=1)))
            rest = rest[whole:]
            yield block

    _write(listened(), target)
    return Voice(length / RATE, silences(np.concatenate(levels)))


def make_voice(stretches: Sequence[Stretch], target: Path) -> Voice:
    """Write stretches of voices one after the other as one, evened out to −16 LUFS (EBU R 128)."""
    length = 0

    def counted() -> Iterator[Samples]:
        nonlocal length
        for block in _joined(stretches):
            length += len(block)
            yield block

    _write(_evened(counted()), target)
    return Voice(length / RATE, [])


def silences(levels: Samples) -> list[tuple[float, float]]:
    """Where windows of 20 ms stay silent for longer than a breath, seconds.

    `levels` are their root mean squares.
    """
    if not len(levels):
        return []
    limit = max(
        QUIET_OVER_FLOOR * float(np.quantile(levels, 0.05)),
        QUIET_OF_SPEECH * float(np.quantile(levels, 0.95)),
    )
    quiet = np.concatenate([[0], (levels < limit).astype(int), [0]])
    firsts, ends = np.flatnonzero(np.diff(quiet) > 0), np.flatnonzero(np.diff(quiet) < 0)
    pairs = zip((firsts * WINDOW_S).tolist(), (ends * WINDOW_S).tolist(), strict=True)
    return [(first, end) for first, end in pairs if end - first >= SILENCE_S]


def _joined(stretches: Sequence[Stretch]) -> Iterator[Samples]:
    for stretch in stretches:
        first = round(stretch.from_s * RATE)
        last = None if stretch.to_s is None else round(stretch.to_s * RATE)
        yield from _softened(_between(read_voice(stretch.path), first, last))


def _between(blocks: Iterator[Samples], first: int, last: int | None) -> Iterator[Samples]:
    """Samples from `first` up to `last`; silence where the voice ends before."""
    at = 0
    for block in blocks:
        start, end = max(first - at, 0), len(block) if last is None else min(last - at, len(block))
        at += len(block)
        if end > start:
            yield block[start:end]
        if last is not None and at >= last:
            return
    if last is not None and last > max(at, first):
        yield np.zeros(last - max(at, first), np.float32)


def _softened(blocks: Iterable[Samples]) -> Iterator[Samples]:
    """The same samples, faded in at the start and out at the end."""
    seam = round(SEAM_S * RATE)
    ramp = np.linspace(0, 1, seam, dtype=np.float32)
    held = np.zeros(0, np.float32)
    first = True
    for block in blocks:
        held = np.concatenate([held, block])
        if len(held) < 2 * seam:
            continue
        if first:
            held[:seam] *= ramp
            first = False
        yield held[:-seam]
        held = held[-seam:]
    if len(held) >= seam:
        held[-seam:] *= ramp[::-1]
    yield held


def _evened(blocks: Iterable[Samples]) -> Iterator[Samples]:
    """The same voice at −16 LUFS, neither later nor longer than it came."""
    graph = Graph()
    source = graph.add_abuffer(sample_rate=RATE, format="flt", layout="mono", time_base=Fraction(1, RATE))
    even = graph.add("loudnorm", f"I={LOUDNESS_LUFS}:LRA={RANGE_LU}:TP={PEAK_DBTP}")
    back = graph.add("aresample", str(RATE))
    shape = graph.add("aformat", "sample_fmts=flt:channel_layouts=mono")
    sink = graph.add("abuffersink")
    for one, other in ((source, even), (even, back), (back, shape), (shape, sink)):
        one.link_to(other)
    graph.configure()
    at = 0
    for block in blocks:
        graph.push(_frame(block, at))
        at += len(block)
        yield from _pulled(graph)
    graph.push(None)
    yield from _pulled(graph)


def _pulled(graph: Graph) -> Iterator[Samples]:
    while True:
        try:
            frame = graph.pull()
        except (av.error.BlockingIOError, av.error.EOFError):
            return
        assert isinstance(frame, av.AudioFrame)
        # Less than three seconds of nothing at all come out as no numbers: it is silence.
        yield np.nan_to_num(frame.to_ndarray()[0], nan=0.0, posinf=0.0, neginf=0.0).astype(np.float32)


def _frame(samples: Samples, at: int) -> av.AudioFrame:
    frame = av.AudioFrame.from_ndarray(samples[None, :], format="flt", layout="mono")
    frame.sample_rate, frame.pts, frame.time_base = RATE, at, Fraction(1, RATE)
    return frame


def _write(blocks: Iterable[Samples], target: Path) -> None:
    """AAC in MP4 that begins to play before all of it has come, timestamps counted from the samples."""
    with av.open(str(target), "w", format="mp4", options={"movflags": "+faststart"}) as out:
        stream = out.add_stream("aac", rate=RATE, layout="mono", bit_rate=BITS_A_SECOND)
        at = 0
        for block in blocks:
            planar = av.AudioFrame.from_ndarray(block[None, :], format="fltp", layout="mono")
            planar.sample_rate, planar.pts, planar.time_base = RATE, at, Fraction(1, RATE)
            at += len(block)
            out.mux(stream.encode(planar))
        out.mux(stream.encode(None))
