"""Answers of trials of arms."""


def answer_of(client, trial):
    return client.get(f"/api/trials/{trial}/verdict").json()["answer"]
