"""`kessik`: exit 0 done, 1 the input was read and refused, 2 wrong usage."""

import os

# The arrays here are small: a second BLAS thread only gets in the way. Has to be said before NumPy is loaded.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

from kessik.cli import serving, trial_files
from kessik.cli.application import app

__all__ = ["app", "serving", "trial_files"]

if __name__ == "__main__":
    app()
