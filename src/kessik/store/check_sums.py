"""A cheap check sum over each event of the log, so that a changed digit is noticed when it is
read.
"""

from zlib import crc32

SUMMED = (
    "id", "run_id", "kind", "device", "device_sequence", "last_seen_position", "count_at",
    "client_time", "payload",
)  # fmt: skip  # the columns that are summed, in their order
_BETWEEN = "\x1f"


def check_sum(
    event_id: str,
    run_id: str,
    kind: str,
    device: str,
    device_sequence: int,
    last_seen_position: int,
    count_at: float,
    client_time: str,
    payload: str,
) -> int:
    """CRC-32 over what an event row says, `payload` as the text that is stored."""
    parts = (
        event_id, run_id, kind, device, str(device_sequence), str(last_seen_position),
        repr(float(count_at)),
        client_time, payload,
    )  # fmt: skip  # in the order of the columns
    return crc32(_BETWEEN.join(parts).encode("utf-8", "surrogatepass"))
