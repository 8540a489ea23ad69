"""Formulas: numbers and arrays in, numbers and arrays out. They know nothing of gardens."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
Flags = NDArray[np.bool_]
Number = float | Array
