"""What check schedules used and reached on the virtual bench; made by `python -m benchmarks --only
schedules`.

Each row: place, the error of ln life that a verdict reckons with (by the mean precision of its
intervals; plans of three edges and more find as often as they promise), mean readings of a run,
mean cuts at its stop over the true life. Simulated edges of all shapes, 4 to 10 % scatter, up to
8 % outliers, limits of 300 and 400 gf.
"""

Row = tuple[float, float, float, float]

SHARE_OF_SCATTER = 0.6
"""How much of the error of a life goes with the scatter of readings, over that at 7 %: simulated at
3 and at 14 %, known by a study, it is 0.41 to 0.68 and 1.53 to 1.57 of what it is at 7 %."""

# by checks to a life, every so many cuts, ended by two readings at one count
FIXED: tuple[Row, ...] = (
    (1.5, 0.201, 4.3, 1.46),
    (2.5, 0.146, 5.6, 1.34),
    (4, 0.120, 7.3, 1.22),
    (6, 0.101, 9.4, 1.15),
    (9, 0.086, 12.8, 1.11),
    (13, 0.083, 16.7, 1.06),
    (20, 0.070, 23.6, 1.02),
    (30, 0.063, 33.3, 0.99),
    (45, 0.064, 47.4, 0.96),
    (70, 0.084, 70.5, 0.94),
    (110, 0.049, 104.8, 0.90),
    (170, 0.035, 156.9, 0.88),
)

# by the life in cuts, keen limit first, then dull
ADAPTIVE: tuple[Row, ...] = (
    (4, 0.128, 7.2, 1.47),
    (6, 0.118, 9.0, 1.34),
    (9, 0.099, 11.4, 1.27),
    (13, 0.091, 12.5, 1.31),
    (20, 0.102, 13.6, 1.26),
    (30, 0.086, 14.4, 1.23),
    (45, 0.089, 15.4, 1.26),
    (70, 0.094, 15.8, 1.24),
    (110, 0.084, 16.8, 1.23),
    (170, 0.093, 17.2, 1.24),
)
