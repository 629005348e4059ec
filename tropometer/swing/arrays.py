"""The kinds of arrays that the core reckons with."""

import numpy as np
import numpy.typing as npt

Array = npt.NDArray[np.float64]
Flags = npt.NDArray[np.bool_]
Frames = npt.NDArray[np.int64]
