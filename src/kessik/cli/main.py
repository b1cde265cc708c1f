"""`kessik`: exit 0 done, 1 the input was read and refused, 2 wrong usage. No traceback reaches a
tester.
"""

import os
import sys

# The arrays here are small: a second BLAS thread only gets in the way. Has to be said before NumPy
# is loaded.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

import typer

from kessik.cli.commands import CommandsAsAsked

app = typer.Typer(
    cls=CommandsAsAsked,
    no_args_is_help=True,
    pretty_exceptions_enable=False,
    help="Kessik, the bench companion of a steel tester.",
)


@app.callback()
def kessik() -> None:
    """Kessik, the bench companion of a steel tester."""


def main() -> None:
    """Run the command that was asked for."""
    try:
        app()
    except Exception as error:
        from kessik.cli.refusals import said_plainly

        sys.stderr.write(f"{said_plainly(error)}\n")
        sys.exit(1)


if __name__ == "__main__":
    main()
