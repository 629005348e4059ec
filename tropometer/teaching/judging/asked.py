"""What a teaching model asks of one swing: a band for each reading, by club, length and reach."""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping
from dataclasses import dataclass

from tropometer.swing.names import ClubClass, SwingLength
from tropometer.teaching.knowledge.band import Band, Key
from tropometer.teaching.knowledge.book import Book
from tropometer.teaching.knowledge.dispute import Clash
from tropometer.teaching.knowledge.motion import Narrowing
from tropometer.teaching.knowledge.teaching_model import TeachingModel

LEAST_WIDE = 0.25  # of a band that reach narrows, so much stays at least


@dataclass(frozen=True, kw_only=True)
class Swung:
    """What was swung, and how far back; where nobody has said, a full swing with an iron."""

    club: ClubClass = "iron"
    length: SwingLength = "full"


@dataclass(frozen=True, kw_only=True)
class Narrowed:
    """A band's end that gave way to what a body can reach."""

    key: Key
    from_value: float
    to_value: float
    why: str


@dataclass(frozen=True, kw_only=True)
class Asked:
    """The bands that a model asks of a swing, what gave way for the student, and what clashes."""

    bands: Mapping[Key, Band]
    narrowed: tuple[Narrowed, ...]
    clashes: tuple[Clash, ...]


def post_of(book: Book, model: TeachingModel) -> float | None:
    """How far past its place at address a model wants the lead hip, metres; None where it does not say."""
    options = (book.option(dispute, chosen) for dispute, chosen in model.chosen.items())
    return next((option.post_m for option in options if option and option.post_m), None)


def asked_of(
    book: Book, model: TeachingModel, swung: Swung, motions: Mapping[str, float] | None = None
) -> Asked:
    """A model's own changes go before its options' bands, those before what all models ask.

    Of two bands of the same rank that both fit, the one that is said for fewer clubs is meant.
    """
    motions = motions or {}
    bands: dict[Key, Band] = {}
    for rank in _ranks(book, model):
        fitting = [band for band in rank if band.holds_for(swung.club, swung.length)]
        for band in sorted(fitting, key=lambda band: -len(band.clubs)):
            bands[band.key] = band
    narrowed = []
    for motion in book.motions.values():
        measured = motions.get(motion.id)
        for narrowing in motion.narrows if measured is not None else ():
            wide = bands.get((narrowing.reading, narrowing.at))
            given_way = _given_way(wide, narrowing, measured) if wide and measured is not None else None
            if given_way is not None:
                bands[given_way[0].key] = given_way[0]
                narrowed.append(given_way[1])
    clashes = tuple(clash for clash in book.clashes.values() if _clashes(clash, model, motions))
    return Asked(bands=bands, narrowed=tuple(narrowed), clashes=clashes)


def asked_by_others(
    book: Book, model: TeachingModel, swung: Swung, readings: Collection[str]
) -> list[tuple[str, Band]]:
    """What the options that a model did not choose ask of some readings, each with its option's name."""
    return [
        (option.name, band)
        for dispute in book.disputes.values()
        for option in dispute.options
        if model.chosen.get(dispute.id) != option.id
        for band in option.bands
        if band.reading in readings and band.holds_for(swung.club, swung.length)
    ]


def _ranks(book: Book, model: TeachingModel) -> Iterator[tuple[Band, ...]]:
    for standard in book.standards.values():
        yield standard.bands
    for dispute, chosen in model.chosen.items():
        option = book.option(dispute, chosen)
        yield option.bands if option else ()
    yield model.changes


def _given_way(band: Band, narrowing: Narrowing, measured: float) -> tuple[Band, Narrowed] | None:
    short = narrowing.under - measured
    end = getattr(band, narrowing.end)
    if short <= 0 or end is None:
        return None
    moved = end + short * narrowing.per_degree
    other = band.high if narrowing.end == "low" else band.low
    if band.half_width is not None and other is not None:
        # A band never turns over: something of it is still asked for.
        least = 2 * LEAST_WIDE * band.half_width
        moved = min(moved, other - least) if narrowing.end == "low" else max(moved, other + least)
    return band.model_copy(update={narrowing.end: moved}), Narrowed(
        key=band.key, from_value=end, to_value=moved, why=narrowing.text
    )


def _clashes(clash: Clash, model: TeachingModel, motions: Mapping[str, float]) -> bool:
    if any(model.chosen.get(each.dispute) != each.option for each in clash.options):
        return False
    if clash.motion is None or clash.under is None:
        return True
    return motions.get(clash.motion, clash.under) < clash.under
