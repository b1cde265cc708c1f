"""`kessik`: exit 0 done, 1 the input was read and refused, 2 wrong usage. No traceback reaches a
tester.
"""

import os
import sys

# The arrays here are small: a second BLAS thread only gets in the way. Has to be said before NumPy
# is loaded.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

from kessik.cli import data_care, serving, trial_files
from kessik.cli.application import app, said_plainly

__all__ = ["app", "data_care", "main", "serving", "trial_files"]


def main() -> None:
    """Run the command that was asked for."""
    try:
        app()
    except Exception as error:
        sys.stderr.write(f"{said_plainly(error)}\n")
        sys.exit(1)


if __name__ == "__main__":
    main()
