"""`kessik`: exit 0 done, 1 the input was read and refused, 2 wrong usage."""

from kessik.cli import serving, trial_files
from kessik.cli.application import app

__all__ = ["app", "serving", "trial_files"]

if __name__ == "__main__":
    app()
