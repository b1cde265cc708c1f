"""Runs cut through the use cases."""


def cut_run(hand, edge, life, step=2):
    """Cut an edge along a curve until the server ends it."""
    run, at = hand.start(edge), 0.0
    while True:
        state = hand.read(run, round(150 + 250 * (at / life) ** 0.6), at)
        if state["status"] == "stopped":
            return run
        if not state["confirmation_wanted"]:
            at = hand.cut(run, step, at)
