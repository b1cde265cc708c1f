"""What lay on the way to a life, in words."""

from kessik.core.trials.courses import KeenerOnTheWay, Way


def way_words(found: Way) -> str:
    """The mean reading of a blade on its way, and its cutting work."""
    return (
        f"{found.blade} reads {found.mean_gf:.0f} gf on average over its {found.to_count:.3g}"
        f" {found.count_unit}; cutting work {found.work:,.0f} gf·{found.count_unit}"
    )


def keener_words(found: KeenerOnTheWay) -> str:
    """That a life alone does not say how good two blades were."""
    lasts = (
        f"{found.keener} and {found.other} are not separated by their lives"
        if found.alike
        else f"{found.other} lasts longer"
    )
    return (
        f"{lasts}, and over the first {found.to_count:.3g} {found.count_unit} {found.keener} is the"
        f" keener: {found.keener_gf:.0f} gf on average against {found.other_gf:.0f}"
    )
