"""A run at the bench in a browser, and its log on the server."""


def at_the_bench(person, served):
    hand = served.hand()
    (_, edge), _ = hand.make_trial("A", "B")
    run = hand.start(edge)
    person.open(f"/runs/{run}")
    person.see("take 2 readings")
    return hand, run


def log_of(hand, run):
    return hand.client.get(f"/api/runs/{run}").json()
