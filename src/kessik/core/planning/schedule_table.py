"""What check schedules used and reached on the virtual bench; made by `python -m benchmarks --only
schedules`.

Each row: place, half the span from the 16th to the 84th percentile of ln(estimate / truth), mean
readings of a run, mean cuts at its stop over the true life. Simulated edges of all shapes, 4 to 10
% scatter, up to 8 % outliers, limits of 300 and 400 gf.
"""

Row = tuple[float, float, float, float]

# by checks to a life, every so many cuts, ended by two readings at one count
FIXED: tuple[Row, ...] = (
    (1.5, 0.138, 4.4, 1.47),
    (2.5, 0.112, 5.6, 1.35),
    (4, 0.085, 7.2, 1.22),
    (6, 0.080, 9.4, 1.16),
    (9, 0.055, 12.8, 1.11),
    (13, 0.062, 16.7, 1.07),
    (20, 0.071, 23.5, 1.02),
    (30, 0.063, 32.9, 0.98),
    (45, 0.088, 47.6, 0.97),
    (70, 0.079, 70.8, 0.94),
    (110, 0.068, 104.7, 0.90),
    (170, 0.082, 157.5, 0.89),
)

# by the life in cuts, keen limit first, then dull
ADAPTIVE: tuple[Row, ...] = (
    (4, 0.098, 7.1, 1.47),
    (6, 0.096, 8.9, 1.36),
    (9, 0.072, 11.5, 1.28),
    (13, 0.070, 12.2, 1.30),
    (20, 0.070, 13.4, 1.26),
    (30, 0.069, 14.2, 1.23),
    (45, 0.071, 15.3, 1.27),
    (70, 0.071, 15.9, 1.25),
    (110, 0.064, 16.7, 1.24),
    (170, 0.072, 17.1, 1.25),
)
