"""The screens' own fonts as files, for what draws outside a browser."""

from functools import lru_cache
from pathlib import Path

from django.conf import settings
from fontTools.ttLib import TTFont
from fontTools.varLib.instancer import instantiateVariableFont

FONTS = {
    "Bricolage Grotesque": "bricolage-grotesque-latin-wght-normal",
    "JetBrains Mono": "jetbrains-mono-latin-wght-normal",
}
REGULAR, BOLD = 400, 700
FAMILY, FULL_NAME = 1, 4  # of an OpenType font's names


@lru_cache
def font_file(family: str, weight: int = REGULAR) -> Path:
    """A web font at one weight, under the name by which the screens know it."""
    (packed,) = (settings.WEB_BUILD / "assets").glob(f"{FONTS[family]}-*.woff2")
    folder = Path(settings.FONT_ROOT)
    folder.mkdir(parents=True, exist_ok=True)
    target = folder / f"{packed.stem}.{weight}.ttf"
    if not target.exists():
        font = instantiateVariableFont(TTFont(packed), {"wght": weight})
        font.flavor = None
        for number in (FAMILY, FULL_NAME):
            font["name"].setName(family, number, 3, 1, 0x409)
        font.save(target.with_suffix(".part"))
        target.with_suffix(".part").replace(target)
    return target
