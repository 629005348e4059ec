"""Open measurements of other people, fetched out of registry packages by ops/outside_data.sh."""

import csv
from functools import lru_cache

import numpy as np

from tests.swings import ROOT

FOLDER = ROOT / "var" / "outside"
SUBJECT = "S03"


@lru_cache(maxsize=1)
def jump() -> dict[str, np.ndarray]:
    """A countermovement jump, from biomdp 0.11.2 (MIT), vicon_CMJ_kinem_kinet_emg.csv.

    Joint centres (n, 3) in metres as RHJC, RKJC, RAJC, LHJC …, and the capture system's own knee and pelvis
    angles (n, 3) in degrees as AngArtKnee_R and AngSegPELVIS_LR.
    """
    with (FOLDER / "vicon_CMJ_kinem_kinet_emg.csv").open(encoding="utf-8-sig") as file:
        rows = list(csv.reader(file))
    start = next(i for i, row in enumerate(rows) if row and row[0] == "Model Outputs")
    names, axes = rows[start + 2], rows[start + 3]
    values = []
    for row in rows[start + 5 :]:
        if len(row) < 3:
            break
        values.append([float(each) if each else np.nan for each in row])
    table = np.array([row + [np.nan] * (len(axes) - len(row)) for row in values])
    found = {}
    for i, name in enumerate(names):
        if name.startswith(f"{SUBJECT}:"):
            scale = 1 if name.split(":")[1].startswith("Ang") else 1e-3
            found[name.removeprefix(f"{SUBJECT}:")] = table[:, i : i + 3] * scale
    return found


@lru_cache(maxsize=1)
def plate() -> dict[str, np.ndarray]:
    """A person standing on a force plate, from biomdp 0.11.2 (MIT), kistler_COP.txt: newtons and metres."""
    lines = (FOLDER / "kistler_COP.txt").read_text(encoding="latin-1").splitlines()
    head = next(i for i, line in enumerate(lines) if line.startswith("abs time"))
    table = np.array(
        [[float(each) for each in line.split("\t")] for line in lines[head + 2 :] if line.strip()]
    )
    return dict(zip(lines[head].strip().split("\t"), table.T, strict=True))


@lru_cache(maxsize=1)
def gait() -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Walking, from GaitAnalysisToolKit 0.2.0, 2d_inverse_dynamics: seconds, marks, the stored knee angle.

    Marks (n, 6, 2), metres, are shoulder, hip, knee, ankle, heel and toe; the angle (n,) is in degrees.
    """
    from scipy.io import loadmat

    raw = np.genfromtxt(FOLDER / "rawdata.txt", comments="%")
    times = raw[:, 0]
    for column in raw.T[1:13]:
        known = np.isfinite(column)
        column[:] = np.interp(times, times[known], column[known])
    knee = np.degrees(loadmat(FOLDER / "refresults.mat")["refresults"][:, 1])
    return times, raw[:, 1:13].reshape(-1, 6, 2), knee
