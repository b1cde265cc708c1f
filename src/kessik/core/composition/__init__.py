"""What a steel is made of: grades, shots of an analyser, and what they say of a claim."""

__all__ = [
    "allowances",
    "batches",
    "candidates",
    "claims",
    "derived",
    "elements",
    "grade_shelf",
    "grades",
    "library",
    "means",
    "reference_alloy",
    "separation",
    "settling",
    "shots",
    "steels",
    "table",
]
