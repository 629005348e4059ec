#!/usr/bin/env bash
# Copies the landmark networks out of the installed web package into var/models and checks what they are.
set -euo pipefail
cd "$(dirname "$(readlink -f "$0")")/.."
from=web/node_modules/@mediapipe/pose
into=var/models

known() { (cd "$1" && sha256sum --check --status -) <<'SUMS'
a63c614bef30d35947f13be361820b1e4e3bec9cfeebf4d11216a18373108e85  pose_detection.tflite
e9a5c5cb17f736fafd4c2ec1da3b3d331d6edbe8a0d32395855aeb2cdfd64b9f  pose_landmark_full.tflite
59e42d71bcd44cbdbabc419f0ff76686595fd265419566bd4009ef703ea8e1fe  pose_landmark_heavy.tflite
SUMS
}

known $into 2>/dev/null && exit
mkdir -p $into
cp $from/pose_landmark_full.tflite $from/pose_landmark_heavy.tflite $into/
# The package's one packed asset is the detector, as it is.
cp $from/pose_solution_packed_assets.data $into/pose_detection.tflite
known $into || { echo "The landmark networks are not the ones expected; not used." >&2; rm -r $into; exit 1; }
