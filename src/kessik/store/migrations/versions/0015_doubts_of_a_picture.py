"""What stands against an area read off a picture has a place of its own; it was kept as words of
what was said.
"""

import json

import sqlalchemy
from alembic import op

revision = "0015"
down_revision = "0014"


def upgrade() -> None:
    store = op.get_bind()
    renewed = [
        {"id": look_id, "said": json.dumps(_with_doubts(json.loads(said)), ensure_ascii=False)}
        for look_id, said in store.execute(
            sqlalchemy.text("SELECT id, said FROM soak_look WHERE json_valid(said)")
        )
    ]
    if renewed:
        store.execute(sqlalchemy.text("UPDATE soak_look SET said = :said WHERE id = :id"), renewed)


def _with_doubts(look: dict[str, object]) -> dict[str, object]:
    if look.get("how") not in ("photo", "brush"):
        return {**look, "doubts": []}
    return {**look, "doubts": str(look.get("said", "")).split(), "said": ""}
