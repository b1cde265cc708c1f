"""A PUT that reads the same body and does nothing: what an acknowledgement costs before anything is
kept.
"""

from fastapi import FastAPI

from kessik.api.schemas.events import EventBody

app = FastAPI()


@app.put("/noop/{event_id}")
def noop(event_id: str, body: EventBody) -> dict[str, str]:
    return {"id": event_id, "kind": body.kind}
