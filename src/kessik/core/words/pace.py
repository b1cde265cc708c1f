"""What the pace of the hand says of it."""

from kessik.core.protocols.pace import HandPace


def tired_words(pace: HandPace) -> str:
    """A hint to rest the hand; empty where it seems fresh."""
    match pace.tired_by:
        case "slowed":
            percent = f"{100 * (pace.slower - 1):.0f} %"
            return f"cuts come {percent} slower than at the start of this stretch; rest the hand"
        case "long":
            return f"{pace.minutes_without_break:.0f} minutes without a break; rest the hand"
        case "many":
            return f"{pace.cuts_without_break:g} cuts without a break; rest the hand"
        case None:
            return ""
