"""Why something is hidden, in words; nothing where it is not."""

from kessik.core.trials.blinding import Sealing


def sealed_run_words(found: Sealing | None) -> str:
    """Why the bench shows no forecast."""
    if found is None:
        return ""
    if found.by == "blind":
        return "Blind: forecast and earlier results stay hidden."
    return "A verification run: the first result and the forecast stay hidden."


def sealed_trial_words(found: Sealing | None) -> str:
    """Why a trial's answer is not shown."""
    if found is None:
        return ""
    if found.by == "verification":
        return "A verification run is being cut; the first result stays hidden until it stops."
    runs = "1 run is" if found.runs_cut == 1 else f"{found.runs_cut} runs are"
    return f"This trial is blind: {runs} cut, and the answer is shown when the codes are revealed."
