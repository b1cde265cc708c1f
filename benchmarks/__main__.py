"""`make bench`: accuracy, coverage and speed, each beside what is wanted or a reference of the same
run.
"""

import os

os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

import argparse

from benchmarks import (
    assays,
    bench_log,
    copies,
    intake,
    interval_score,
    kills,
    line_up,
    lives,
    mixed_use,
    outlines,
    paper,
    pass_fail,
    ratios,
    rust,
    scale,
    schedules,
    speed,
    standings,
)


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument(
        "--edges", type=int, default=3000, help="simulated edges a row of the life table"
    )
    parser.add_argument(
        "--trials", type=int, default=300, help="simulated trials a row of the ratio table"
    )
    parser.add_argument("--seconds", type=float, default=600, help="how long mixed use lasts")
    parser.add_argument("--events", type=int, default=200, help="taps to time")
    parser.add_argument(
        "--only",
        choices=(
            "speed",
            "bench-log",
            "intake",
            "line-up",
            "lives",
            "ratios",
            "pass-fail",
            "cliffs",
            "interval-score",
            "schedules",
            "scale",
            "assays",
            "rust",
            "outlines",
            "copies",
            "kills",
            "mixed-use",
            "paper",
            "standings",
        ),
        help="one part",
    )
    chosen = parser.parse_args()
    if chosen.only in (None, "speed"):
        speed.report_analysis()
        speed.report_verdict()
        speed.report_first_load()
    if chosen.only in (None, "bench-log"):
        bench_log.report(chosen.events)
    if chosen.only in (None, "intake"):
        intake.report()
    if chosen.only in (None, "scale"):
        scale.report()
    if chosen.only in (None, "assays"):
        assays.report(max(chosen.edges // 15, 4))
    if chosen.only in (None, "paper"):
        paper.report()
    if chosen.only in (None, "rust"):
        rust.report(max(chosen.edges // 50, 8))
    if chosen.only in (None, "outlines"):
        outlines.report(max(chosen.edges // 50, 8))
    if chosen.only in (None, "copies"):
        copies.report()
    if chosen.only in (None, "kills"):
        kills.report()
    if chosen.only in (None, "standings"):
        standings.report(max(chosen.trials // 8, 8))
    if chosen.only in (None, "mixed-use"):
        mixed_use.report(chosen.seconds)
    if chosen.only in (None, "line-up"):
        line_up.report()
    if chosen.only in (None, "lives"):
        lives.report(chosen.edges)
    if chosen.only in (None, "interval-score"):
        interval_score.report(max(chosen.edges // 2, 360))
    if chosen.only in (None, "ratios"):
        ratios.report(chosen.trials)
    if chosen.only in (None, "pass-fail"):
        pass_fail.report_pairs(chosen.trials)
    if chosen.only in (None, "cliffs"):
        pass_fail.report_cliffs(max(chosen.edges // 10, 20))
    if chosen.only == "schedules":
        schedules.report(max(chosen.edges // 10, 20))


if __name__ == "__main__":
    main()
