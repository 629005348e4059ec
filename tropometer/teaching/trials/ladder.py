"""The rungs of a studio hour: what each changed, against the first ones, and whether to go back once."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from tropometer.teaching.over_time.typical import Typical
from tropometer.teaching.trials.against import Against, Tried, against, hour_scatter
from tropometer.teaching.trials.strikes import Counted, Struck, counted

AS_USUAL = ""  # what a try without a change is called


@dataclass(frozen=True, kw_only=True)
class Rung:
    """One try: what was changed this time, its values by column, how it was struck, and whether it counts."""

    changed: str
    values: Mapping[str, Tried]
    struck: Struck | None = None
    counts: bool = True


@dataclass(frozen=True, kw_only=True)
class Column:
    """A reading or an outcome: the scatter that is typical of it, and the difference that matters."""

    id: str
    typical: Typical
    worth: float


@dataclass(frozen=True, kw_only=True)
class Step:
    """A change against the base line, by column. `went_back`: tries as before followed it.

    `drifted` holds columns in which the base line itself moved from before the change to after it: there the
    change is not believed, whatever the numbers say.
    """

    changed: str
    by_column: Mapping[str, Against]
    strikes: tuple[Counted, ...]
    went_back: bool
    drifted: tuple[str, ...]


def steps(rungs: Sequence[Rung], columns: Sequence[Column]) -> tuple[Step, ...]:
    """Each thing that was changed, in the order in which it was first tried.

    The base line is what the hour began with. A column that one side lacks is left out.
    """
    counted = [rung for rung in rungs if rung.counts]
    if not counted:
        return ()
    base = counted[0].changed
    changes = [each for each in dict.fromkeys(rung.changed for rung in counted) if each != base]
    return tuple(_step(counted, base, changed, columns) for changed in changes)


def _step(rungs: Sequence[Rung], base: str, changed: str, columns: Sequence[Column]) -> Step:
    tried = [number for number, rung in enumerate(rungs) if rung.changed == changed]
    before, after = rungs[: tried[0]], rungs[tried[-1] + 1 :]
    found: dict[str, Against] = {}
    drifted: list[str] = []
    for column in columns:
        groups = {
            name: _values(rungs, name, column.id) for name in dict.fromkeys(rung.changed for rung in rungs)
        }
        if not groups[base] or not groups[changed]:
            continue
        scatter = hour_scatter([group for group in groups.values() if group], column.typical)
        found[column.id] = against(groups[base], groups[changed], scatter, column.worth)
        early, late = _values(before, base, column.id), _values(after, base, column.id)
        if early and late and against(early, late, scatter, column.worth).verdict in ("real", "seems"):
            drifted.append(column.id)
    went_back = any(rung.changed == base for rung in after)
    return Step(
        changed=changed,
        by_column=found,
        strikes=counted(_struck(rungs, base), _struck(rungs, changed)),
        went_back=went_back,
        drifted=tuple(drifted),
    )


def _struck(rungs: Sequence[Rung], changed: str) -> list[Struck]:
    return [rung.struck for rung in rungs if rung.changed == changed and rung.struck is not None]


def _values(rungs: Sequence[Rung], changed: str, column: str) -> list[Tried]:
    return [rung.values[column] for rung in rungs if rung.changed == changed and column in rung.values]
